package main

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"net/http"
	"slices"
	"strings"

	"golang.org/x/image/tiff"
)

const head = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="100mm" viewBox="0 0 100 100">`

// attacks are all cases, each the same at every run.
func attacks() []attack {
	var out []attack
	rnd := rand.New(rand.NewPCG(20, 26))
	bytesOf := func(b []byte) func() []byte { return func() []byte { return b } }
	drawing := func(name string, body string) {
		out = append(out, attack{name: "drawing " + name, method: http.MethodPost, path: "/api/import/set?kind=die&name=x", mime: "image/svg+xml", body: bytesOf([]byte(body))})
	}
	pictured := func(name, as string, body func() []byte, together int) {
		out = append(out, attack{name: "picture " + name, method: http.MethodPost, path: "/api/scan?dpi=300&ground=any&as=" + as, mime: "application/octet-stream", body: body, together: together})
	}
	table := func(name, path string, body []byte) {
		out = append(out, attack{name: "table " + name, method: http.MethodPost, path: path, mime: "application/octet-stream", body: bytesOf(body)})
	}
	ask := func(name, method, path, body string) {
		out = append(out, attack{name: name, method: method, path: path, mime: "application/json", body: bytesOf([]byte(body))})
	}

	// Drawings.
	tens := `<defs><rect id="l0" width="1" height="1"/>`
	for i := range 10 {
		tens += fmt.Sprintf(`<g id="l%d">%s</g>`, i+1, strings.Repeat(fmt.Sprintf(`<use href="#l%d"/>`, i), 10))
	}
	drawing("ten levels of ten", head+tens+`</defs><use href="#l10"/></svg>`)
	dots := func(n int) string {
		var b strings.Builder
		for i := range n {
			fmt.Fprintf(&b, `<circle cx="%.1f" cy="%.1f" r="0.7"/>`, 2+float64(i%40)*2.3, 2+float64(i/40)*2.3)
		}
		return b.String()
	}
	drawing("800 dots", head+`<g id="a">`+dots(800)+`</g><rect width="4" height="4"/></svg>`)
	drawing("1,000 circles alone", head+`<g>`+dots(1000)+`</g></svg>`)
	drawing("12,000 circles", head+`<g>`+dots(12000)+`</g></svg>`)
	var tangle strings.Builder
	for range 3000 {
		fmt.Fprintf(&tangle, "L%.2f %.2f", 90*rnd.Float64(), 90*rnd.Float64())
	}
	drawing("tangle", head+`<path d="M0 0`+tangle.String()+`z"/></svg>`)
	var rules strings.Builder
	for i := range 20000 {
		fmt.Fprintf(&rules, ".a%d{fill:#%06x}", i, i)
	}
	drawing("20,000 rules", head+`<style>`+rules.String()+`</style><g>`+strings.Repeat(`<rect class="a1 a2 a3 a9999" width="9" height="9"/>`, 900)+`</g></svg>`)
	drawing("open style sheet", head+`<style>`+strings.Repeat(`@media screen{`, 3000)+`</style><rect width="9" height="9"/></svg>`)
	drawing("200,000 corners", head+`<path d="M0 0`+strings.Repeat("l0.4 0.4l0.4-0.4", 90000)+`V90H0z"/></svg>`)
	drawing("deep groups", head+strings.Repeat("<g>", 100000)+"</svg>")
	drawing("attributes", head+`<rect `+strings.Repeat(`a="b" `, 1)+strings.Repeat(` x`, 10)+`/></svg>`)
	drawing("20,001 dots in a path", head+`<path d="`+strings.Repeat("m0.1 0h0.3v0.3h-0.3z", 20001)+`"/></svg>`)
	drawing("entities", `<!DOCTYPE svg [<!ENTITY a "b"><!ENTITY c "&a;&a;">]>`+head+`<text>&c;</text></svg>`)
	for i, t := range []string{"translate(100000 0)", "translate(1e300 0)", "scale(1e30)", "matrix(0 0 0 0 0 0)", "scale(1e-30)", "rotate(1e300)", "skewX(90)", "matrix(1 2 2 4 0 0)", "translate(NaN 1)", "scale(-1)", "translate(9999 9999)"} {
		drawing(fmt.Sprintf("transform %d", i), head+`<g transform="`+t+`"><rect width="9" height="9"/><circle r="4"/><path d="M0 0a5 3 20 1 0 9 9z"/></g><rect width="5" height="5"/></svg>`)
	}
	for i, d := range []string{"M0 0", "M0 0z", "M1e400 0L2 2z", "M0 0L1 1L2 2z", "M0 0A1 1 0 0 0 1e9 1z", "M0 0C1 2 3z", "M0 0L", "Mx", "M0 0 Q1e308 1e308 2 2z", "m0 0 1e7 0 0 1e7z", "M0,0L10,0 10,10 0,10 0,0 10,0z", "M0 0H1e5V1e5z", "M5 5a0 0 0 0 0 0 0z", "M0 0L9 0 9 9zM0 0L9 0 9 9z"} {
		drawing(fmt.Sprintf("path %d", i), head+`<path d="`+d+`"/><rect width="5" height="5"/></svg>`)
	}
	for i, a := range []string{`width="0" height="0"`, `width="1e300mm"`, `width="-4mm"`, `viewBox="0 0 0 0"`, `viewBox="0 0 1e-300 1e-300"`, `viewBox="0 0 1e300 1e300"`, `viewBox="1 2 3"`, `width="nan"`, `width="5furlongs"`, `width="1e9in" viewBox="0 0 1 1"`} {
		drawing(fmt.Sprintf("sheet %d", i), `<svg xmlns="http://www.w3.org/2000/svg" `+a+`><rect width="9" height="9"/></svg>`)
	}
	good := head + `<g id="wing" transform="rotate(3)"><path d="M0 0 C 1 2 3 4 50 6 a9 9 0 0 1 5 5z"/></g><use href="#wing" x="30"/><clipPath id="k"><rect width="9" height="9"/></clipPath><circle clip-path="url(#k)" cx="8" cy="8" r="7"/></svg>`
	for i := range 170 {
		b := []byte(good)
		if i < 60 {
			b = b[:rnd.IntN(len(b))]
		} else {
			for range 1 + i/20 {
				b[rnd.IntN(len(b))] = byte(rnd.IntN(256))
			}
		}
		drawing(fmt.Sprintf("spoilt %d", i), string(b))
	}

	// Pictures.
	deep := func() []byte { return deepPNG(10000, 10000) }
	pictured("10,000 by 10,000 of 16 bits", "pieces", deep, 1)
	pictured("four of those at once", "pieces", deep, 4)
	out[len(out)-1].most = 4 * usual
	pictured("a TIFF of 85 million pixels", "pieces", func() []byte {
		var b bytes.Buffer
		_ = tiff.Encode(&b, image.NewNRGBA(image.Rect(0, 0, 9000, 9500)), &tiff.Options{Compression: tiff.Deflate})
		return b.Bytes()
	}, 1)
	pictured("a JPEG of 90 million pixels", "pieces", func() []byte {
		var b bytes.Buffer
		_ = jpeg.Encode(&b, image.NewGray(image.Rect(0, 0, 9500, 9500)), nil)
		return b.Bytes()
	}, 1)
	pictured("striped 10,000 page", "pieces", func() []byte { return stripes(10000) }, 1)
	pictured("noise as stamps", "stamps", func() []byte { return noise(2400, 1) }, 1)
	pictured("noise as pieces", "pieces", func() []byte { return noise(2400, 2) }, 1)
	pictured("specks", "stamps", func() []byte { return specks(3000) }, 1)
	pictured("nine at once", "pieces", func() []byte { return specks(1200) }, 9)
	pictured("one colour", "pieces", func() []byte { return encoded(image.NewGray(image.Rect(0, 0, 3000, 3000))) }, 1)
	pictured("claims 100,000 by 100,000", "pieces", func() []byte { return claims(100000, 100000) }, 1)
	pictured("claims 9,000 by 11,000", "pieces", func() []byte { return claims(9000, 11000) }, 1)
	pictured("a line", "pieces", func() []byte { return encoded(image.NewGray(image.Rect(0, 0, 60000, 20))) }, 1)
	small := discs()
	var jp, tf bytes.Buffer
	_ = jpeg.Encode(&jp, small, nil)
	_ = tiff.Encode(&tf, small, nil)
	for kind, raw := range map[string][]byte{"png": encoded(small), "jpeg": jp.Bytes(), "tiff": tf.Bytes()} {
		for i := range 40 {
			b := bytes.Clone(raw)
			if i < 14 {
				b = b[:rnd.IntN(len(b))]
			} else {
				for range 1 + i {
					b[rnd.IntN(min(len(b), 60+i*200))] = byte(rnd.IntN(256))
				}
			}
			pictured(fmt.Sprintf("spoilt %s %d", kind, i), []string{"pieces", "mat", "stamps", "stencil"}[i%4], bytesOf(b), 1)
		}
	}

	// Tables and palettes.
	ink := "name,dry,hiding power,dry minutes\nPlum,#663355,0.2,3\n"
	for i, row := range []string{"X,#zzzzzz", "=1+1,#aabbcc", "X,#aabbcc,inf,nan", "X,#aabbcc,1e300", `"open`, strings.Repeat(",", 100000), "\x00\x01\x02", "X,#aabbcc,\"1,000\"", strings.Repeat("A", 1<<20) + ",#aabbcc", "Ü,#aabbcc"} {
		table(fmt.Sprintf("row %d", i), "/api/inks/import?as=csv", []byte(ink+row+"\n"))
	}
	table("latin", "/api/inks/import?as=csv", []byte("name;dry\nGr\xfcn;#336633\n"))
	table("utf-16", "/api/inks/import?as=csv", []byte("\xff\xfen\x00a\x00m\x00e\x00,\x00d\x00r\x00y\x00\n\x00"))
	table("workbook", "/api/inks/import?as=csv", []byte("PK\x03\x04 not a table"))
	table("palette line", "/api/inks/import?as=gpl", []byte("GIMP Palette\n#"+strings.Repeat("x", 200000)+"\n1 2 3 X\n"))
	var many strings.Builder
	many.WriteString("name,dry\n")
	for i := range 5001 {
		fmt.Fprintf(&many, "I%d,#%06x\n", i, i*3000)
	}
	table("5,001 inks", "/api/inks/import?as=csv", []byte(many.String()))
	for i := range 40 {
		b := []byte(ink)
		for range 1 + i/8 {
			b[rnd.IntN(len(b))] = byte(rnd.IntN(256))
		}
		table(fmt.Sprintf("spoilt %d", i), "/api/inks/import?as=csv", b)
	}

	// Dies, stacks, cuts.
	for i, b := range []string{`"w":200,"h":200,"corner":0.1`, `"w":200,"h":200,"corner":0.0001`, `"w":400,"h":400,"corner":1`, `"w":1e300`, `"w":3,"h":3,"count":12,"step":50`, `"w":400,"count":12,"step":0.01,"corner":1`} {
		for _, kind := range []string{"scalloped", "stitched", "ring", "tag", "fishtail banner", "rectangle"} {
			ask(fmt.Sprintf("die %d %s", i, kind), http.MethodPost, "/api/sets/basic", `{"kind":"`+kind+`",`+b+`}`)
		}
	}
	ten := `{"pieces":[` + strings.TrimSuffix(strings.Repeat(`{"outline":"M0 0L9999 0L9999 9999L0 9999Z"},`, 12), ",") + `]}`
	ask("stack of 10 m outlines", http.MethodPost, "/api/scan/stack", ten)
	ask("stack of nothing", http.MethodPost, "/api/scan/stack", `{"pieces":[]}`)
	ask("split far", http.MethodPost, "/api/scan/split", `{"outline":"M0 0L9 0L9 9Z","colour":"#aaaaaa","ax":1e308,"ay":1e308,"bx":-1e308,"by":0}`)
	ask("keep far", http.MethodPost, "/api/scan/keep", `{"name":"x","kind":"die","layers":[{"label":"p","copies":1,"fit":"free","host":-1,"pieces":[{"outline":"M0 0L9 0L9 9Z","x":1000000,"y":0,"turn":0}]}]}`)
	for i, o := range []string{"M0 0L9 0L9 9Z", "M1e5 0L9 0L9 9Z", "MNaN 0L9 0L9 9Z", "M0 0", "", "M0 0L9 0L9 9Zz", strings.Repeat("M0 0L9 0L9 9Z", 20001)} {
		ask(fmt.Sprintf("set %d", i), http.MethodPut, "/api/kit/sets/h"+fmt.Sprint(i), fmt.Sprintf(`{"id":"h%d","name":"H","kind":"die","parts":[{"id":"a","label":"a","outline":%q,"order":1,"rank":1,"copies":1,"fit":"free"}]}`, i, o))
	}

	// Cards.
	element := func(n int) string {
		var b []string
		for i := range n {
			b = append(b, fmt.Sprintf(`{"id":"x%d","face":"front","place":{"x":%d,"y":%d,"turn":%d},"bonds":[{}],"image":{"motif":"m1","colourway":"w1"}}`, i, i%100, i/4, i))
		}
		return strings.Join(b, ",")
	}
	sheets := func(n int) string {
		var b []string
		for i := range n {
			on := ""
			if i > 0 {
				on = fmt.Sprintf(`,"on":"s%d"`, i-1)
			}
			b = append(b, fmt.Sprintf(`{"id":"s%d","face":"front"%s,"place":{"x":0,"y":0,"turn":0},"inset":{"left":0.001,"right":0.001,"top":0.001,"bottom":0.001},"bonds":[{}],"sheet":{"paper":"chalk"}}`, i, on))
		}
		return strings.Join(b, ",")
	}
	joined := func(lists ...string) string {
		return strings.Join(slices.DeleteFunc(lists, func(l string) bool { return l == "" }), ",")
	}
	cardOf := func(sheets, elements string) string {
		return `{"version":2,"title":"x","base":{"format":"a2","w":108,"h":140,"fold":"side","paper":"chalk","envelope":""},"motifs":[{"id":"m1","name":"Moth","set":"hawk-moth","school":"local colour","layers":[{"id":"p1","part":"p1","label":"S","make":"cut","rank":1,"fit":"free","copies":1},{"id":"p2","part":"p2","label":"T","make":"cut","rank":2,"fit":"within","copies":1}],"colourways":[{"id":"w1","name":"First","layers":{}}]}],"elements":[` + joined(sheets, elements) + `],"setAside":[]}`
	}
	save := func(name, body string) { ask("card "+name, http.MethodPut, "/api/cards/lamp-sitters", body) }
	save("400 images", cardOf(sheets(1), element(400)))
	save("300 images", cardOf(sheets(1), element(300)))
	save("1,000 images", cardOf(sheets(1), element(1000)))
	save("5,000 sheets", cardOf(sheets(5000), element(1)))
	for i, b := range []string{`{}`, `[]`, `null`, `"x"`, `{"version":99}`, strings.Repeat("[", 100000), `{"version":2,"title":"x"}`, cardOf(`{"id":"s","face":"front","place":{"x":0,"y":0,"turn":0},"inset":{"left":1e300,"right":0,"top":0,"bottom":0},"sheet":{"paper":"x"}}`, ""), cardOf(sheets(1), `{"id":"e","face":"front","place":{"x":1e300,"y":0,"turn":0},"image":{"motif":"m1","colourway":"w1"}}`)} {
		save(fmt.Sprintf("odd %d", i), b)
	}
	whole := cardOf(sheets(2), element(2))
	for i := range 40 {
		b := []byte(whole)
		for range 1 + i/8 {
			b[rnd.IntN(len(b))] = byte(32 + rnd.IntN(90))
		}
		save(fmt.Sprintf("spoilt %d", i), string(b))
	}
	for i, q := range []string{"y=NaN", "y=1e308", "y=-inf", "y=", "y=abc"} {
		ask(fmt.Sprintf("section %d", i), http.MethodGet, "/api/cards/five-beetles/section?"+q, "")
	}
	for i, t := range []string{"nan", "1e999", "∞", strings.Repeat("9", 59), "1/0", "4 15/0"} {
		ask(fmt.Sprintf("length %d", i), http.MethodGet, "/api/length?text="+strings.ReplaceAll(t, " ", "+"), "")
	}
	for i, b := range []string{"no backup", "SQLite format 3\x00" + strings.Repeat("x", 5000), ""} {
		ask(fmt.Sprintf("restore %d", i), http.MethodPost, "/api/data/restore", b)
	}
	return append(out, remembered(rnd)...)
}

func encoded(img image.Image) []byte {
	var b bytes.Buffer
	e := png.Encoder{CompressionLevel: png.BestSpeed}
	_ = e.Encode(&b, img)
	return b.Bytes()
}

type deepImage struct{ w, h int }

func (d deepImage) ColorModel() color.Model { return color.NRGBA64Model }
func (d deepImage) Bounds() image.Rectangle { return image.Rect(0, 0, d.w, d.h) }
func (d deepImage) At(x, y int) color.Color {
	if (x-5000)*(x-5000)+(y-5000)*(y-5000) < 4e6 {
		return color.NRGBA64{0xe000, 0xd000, 0xb000, 0xffff}
	}
	return color.NRGBA64{0x1000, 0x1000, 0x1200, 0xffff}
}

var deepCache []byte

func deepPNG(w, h int) []byte {
	if deepCache == nil {
		deepCache = encoded(deepImage{w, h})
	}
	return deepCache
}

func stripes(n int) []byte {
	img := image.NewGray(image.Rect(0, 0, n, n))
	for y := range n {
		for x := range n {
			if (x/40+y/900)%2 == 0 {
				img.Pix[y*n+x] = 240
			} else {
				img.Pix[y*n+x] = 30
			}
		}
	}
	return encoded(img)
}

func noise(n int, seed uint64) []byte {
	rnd := rand.New(rand.NewPCG(seed, 1))
	img := image.NewGray(image.Rect(0, 0, n, n))
	for i := range img.Pix {
		img.Pix[i] = byte(rnd.IntN(256))
	}
	return encoded(img)
}

func specks(n int) []byte {
	img := image.NewGray(image.Rect(0, 0, n, n))
	for i := range img.Pix {
		img.Pix[i] = 245
		if x, y := i%n, i/n; x%14 < 7 && y%14 < 7 {
			img.Pix[i] = 20
		}
	}
	return encoded(img)
}

func discs() image.Image {
	img := image.NewRGBA(image.Rect(0, 0, 500, 400))
	for y := range 400 {
		for x := range 500 {
			c := color.RGBA{20, 20, 22, 255}
			if (x-150)*(x-150)+(y-200)*(y-200) < 8000 || (x-350)*(x-350)+(y-200)*(y-200) < 6000 {
				c = color.RGBA{230, 210, 180, 255}
			}
			img.Set(x, y, c)
		}
	}
	return img
}

// claims is a PNG whose head says it is large and whose data is not there.
func claims(w, h uint32) []byte {
	b := encoded(image.NewGray(image.Rect(0, 0, 20, 20)))
	binary.BigEndian.PutUint32(b[16:], w)
	binary.BigEndian.PutUint32(b[20:], h)
	crc := crcOf(b[12:29])
	binary.BigEndian.PutUint32(b[29:], crc)
	return b
}

func crcOf(b []byte) uint32 {
	c := ^uint32(0)
	for _, v := range b {
		c ^= uint32(v)
		for range 8 {
			if c&1 == 1 {
				c = c>>1 ^ 0xedb88320
			} else {
				c >>= 1
			}
		}
	}
	return ^c
}
