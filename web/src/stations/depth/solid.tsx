import { useEffect, useRef } from "react";
import * as T from "three";
import { useBench } from "../../api/card";
import type { S } from "../../api/client";
import { colours } from "../../ui/colours";
import { under } from "./cut";
import { shapes } from "./shapes";

/** The colour of the core of coloured card, at its edges. */
const core = "#f4f1ea";

/** A ring with corners no farther from each other than so many mm. */
function closer(r: { x: number; y: number }[], step: number): { x: number; y: number }[] {
	return r.flatMap((p, i) => {
		const q = r[(i + 1) % r.length];
		const n = Math.max(1, Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / step));
		return Array.from({ length: n }, (_, k) => ({ x: p.x + ((q.x - p.x) * k) / n, y: p.y + ((q.y - p.y) * k) / n }));
	});
}

/** One leaf as a solid: its top and back in their colours, its core at its edges. It lies in
 * the frame of the front with y downwards and heights upwards. */
function leaf(path: string, thick: number, top: string, sides: string, fine = 0): T.Mesh[] {
	return shapes(path).map(({ outer, holes }) => {
		const at = (r: { x: number; y: number }[]) => (fine ? closer(r, fine) : r).map((p) => new T.Vector2(p.x, -p.y));
		const shape = new T.Shape(at(outer));
		shape.holes = holes.map((h) => new T.Path(at(h)));
		if (thick <= 0) return new T.Mesh(new T.ShapeGeometry(shape), new T.MeshLambertMaterial({ color: top, side: T.DoubleSide }));
		const mesh = new T.Mesh(new T.ExtrudeGeometry(shape, { depth: thick, bevelEnabled: false }), [
			new T.MeshLambertMaterial({ color: top }),
			new T.MeshLambertMaterial({ color: sides }),
		]);
		mesh.castShadow = true;
		mesh.receiveShadow = true;
		return mesh;
	});
}

/** Everything on the front at its true height. */
function build(standing: S["StandingCard"], w: number, h: number, paper: string): T.Group {
	const g = new T.Group();
	const put = (m: T.Object3D, z: number) => {
		m.position.z = z;
		g.add(m);
	};
	const half = standing.base / 2;
	const rect = `M0 0L${w} 0L${w} ${h}L0 ${h}Z`;
	for (const z of [0, half]) for (const m of leaf(rect, half * 0.94, paper, core)) put(m, z);
	standing.pieces.forEach((p, i) => {
		// A leaf that leans is sheared, one that is bent follows its heights: outlines are as seen from above.
		const lean = new T.Matrix4().set(1, 0, 0, 0, 0, 1, 0, 0, p.sx, -p.sy, 1, under(p, { x: 0, y: 0 }), 0, 0, 0, 1);
		const fine = p.bent?.cell;
		const add = (m: T.Mesh, up: number) => {
			if (fine) {
				const at = m.geometry.attributes.position;
				for (let n = 0; n < at.count; n++) at.setZ(n, at.getZ(n) + up + under(p, { x: at.getX(n), y: -at.getY(n) }));
				m.geometry.computeVertexNormals();
			} else {
				m.applyMatrix4(new T.Matrix4().makeTranslation(0, 0, up));
				m.applyMatrix4(lean);
			}
			m.receiveShadow = true;
			g.add(m);
		};
		for (const m of leaf(p.path, p.thick, p.thick > 0 ? p.body : p.top, core, fine)) add(m, p.thick > 0 ? 0 : 0.004 + i * 1e-4);
		if (p.thick > 0 && p.top && p.top !== p.body) for (const m of leaf(p.path, 0, p.top, core, fine)) add(m, p.thick + 0.002);
		p.films.forEach((f, n) => {
			for (const m of leaf(f.path, 0, f.fill, core, fine)) add(m, p.thick + 0.004 + n * 2e-4);
		});
		for (const s of p.supports) {
			if (s.raised && s.height > 0) for (const m of leaf(s.path, s.height, s.foam ? "#ffffff" : core, s.foam ? "#ffffff" : core, fine)) add(m, -s.height);
		}
	});
	g.position.set(-w / 2, h / 2, 0);
	return g;
}

/** The card turned in the hand, at its true heights, with its shadows and the cores of its card. */
export default function Solid({ standing, w, h }: { standing: S["StandingCard"]; w: number; h: number }) {
	const b = useBench();
	const c = b.card.base;
	const paper = b.state.kit.papers.find((p) => p.id === c.paper)?.colour ?? "#ffffff";
	const at = useRef<HTMLCanvasElement>(null);
	const turn = useRef({ a: -28, e: 46 });
	const draw = useRef<() => void>(() => {});
	const from = useRef<{ x: number; y: number; a: number; e: number }>(null);

	useEffect(() => {
		const canvas = at.current;
		if (!canvas) return;
		const r = new T.WebGLRenderer({ canvas, antialias: true, alpha: true });
		r.setPixelRatio(Math.min(window.devicePixelRatio, 2));
		r.setSize(w, h, false);
		r.shadowMap.enabled = true;
		r.shadowMap.type = T.PCFSoftShadowMap;
		const far = Math.hypot(c.w, c.h);
		const scene = new T.Scene();
		const hand = new T.Group();
		hand.add(build(standing, c.w, c.h, paper));
		scene.add(hand, new T.AmbientLight(colours.white, 1.7));
		// The lamp stands where the front's light comes from, above left, and turns with the card.
		const lamp = new T.DirectionalLight(colours.white, 2);
		lamp.position.set(-far * 0.35, far * 0.4, far * 0.8);
		lamp.castShadow = true;
		lamp.shadow.mapSize.set(2048, 2048);
		Object.assign(lamp.shadow.camera, { left: -far / 2, right: far / 2, top: far / 2, bottom: -far / 2, near: 1, far: far * 3 });
		lamp.shadow.bias = -0.0005;
		lamp.shadow.normalBias = 0.05;
		hand.add(lamp);
		const eye = new T.PerspectiveCamera(28, w / h, 10, far * 10);
		eye.position.set(0, 0, (far / 2 / Math.tan((14 * Math.PI) / 180)) * 1.02);
		draw.current = () => {
			const rad = Math.PI / 180;
			hand.rotation.set(-(90 - turn.current.e) * rad, 0, 0);
			hand.rotateZ(turn.current.a * rad);
			r.render(scene, eye);
			canvas.dataset.drawn = "yes";
		};
		draw.current();
		return () => {
			scene.traverse((o) => {
				if (!(o instanceof T.Mesh)) return;
				o.geometry.dispose();
				for (const m of [o.material].flat()) m.dispose();
			});
			r.dispose();
			draw.current = () => {};
		};
	}, [standing, c.w, c.h, w, h, paper]);

	const to = (a: number, e: number) => {
		turn.current = { a, e: Math.min(90, Math.max(6, e)) };
		draw.current();
	};
	return (
		<canvas
			ref={at}
			width={w}
			height={h}
			style={{ width: w, height: h, touchAction: "none", cursor: "grab", flexShrink: 0 }}
			tabIndex={0}
			role="img"
			aria-label="The card turned in the hand; turn it with the arrow keys"
			onPointerDown={(e) => {
				e.currentTarget.setPointerCapture(e.pointerId);
				from.current = { x: e.clientX, y: e.clientY, ...turn.current };
			}}
			onPointerMove={(e) => {
				const f = from.current;
				if (f) to(f.a + (e.clientX - f.x) / 3, f.e - (e.clientY - f.y) / 4);
			}}
			onPointerUp={() => {
				from.current = null;
			}}
			onKeyDown={(e) => {
				const step = { ArrowLeft: [-5, 0], ArrowRight: [5, 0], ArrowUp: [0, 4], ArrowDown: [0, -4] }[e.key];
				if (!step) return;
				e.preventDefault();
				to(turn.current.a + step[0], turn.current.e + step[1]);
			}}
		/>
	);
}
