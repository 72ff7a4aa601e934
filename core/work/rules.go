package work

import (
	"slices"
)

// Rule is one rule of the order of work: which acts must come before which, and why.
type Rule struct {
	ID  string
	Why string
	// Yields says that the rule gives way where the others leave it no room: what has
	// something slipped in beneath it can only go on when its carrier is down.
	Yields bool

	pairs func(t *table, need func(first, then int))
}

// Rules lists the rules of order. Each stands by itself: taking one away breaks none of
// the others.
func Rules() []Rule {
	return []Rule{
		{ID: "cut first", Why: "the piece must be cut before it is inked", pairs: cutFirst},
		{ID: "host first", Why: "the print needs what it is printed on", pairs: hostFirst},
		{ID: "in turn", Why: "light before dark, and the count is kept", pairs: inTurn},
		{ID: "light first", Why: "lightest first carries less dirt and the dark covers small errors", pairs: lightFirst},
		{ID: "set", Why: "ink that needs heat stays wet until it is set", pairs: setInk},
		{ID: "dry", Why: "wet card tears and wet ink smears", pairs: dry},
		{ID: "cut from", Why: "what is on the sheet has to be on it, and dry, before anything is cut out of it", pairs: cutOutOf},
		{ID: "masked", Why: "what stands in front is masked while what lies behind it is printed", pairs: masked},
		{ID: "made", Why: "it must be made before it is put on", pairs: made},
		{ID: "under", Why: "it lies under the next piece", pairs: under},
		{ID: "pressed", Why: "pieces pressed on it would crush the foam beneath it", pairs: pressed, Yields: true},
		{ID: "closed", Why: "what is in a shaker goes in before it is closed", pairs: closed},
		{ID: "whole", Why: "an image is stacked before it is put down", pairs: whole},
		{ID: "beside raised", Why: "stamping beside raised work goes wrong", pairs: besideRaised},
		{ID: "heat before foam", Why: "a hot air tool warps foam and acetate", pairs: heatBeforeFoam},
		{ID: "gems last", Why: "gems catch, and nothing can be pressed flat over them", pairs: gemsLast},
		{ID: "trimmed", Why: "what hangs over is trimmed when the glue is dry, before the panel is mounted", pairs: trimmed},
		{ID: "lifted", Why: "what tacky film lifts is glued in it, and what lies over it waits until the film is off", pairs: lifted},
		{ID: "base last", Why: "the panel is finished before it goes on its base", pairs: baseLast},
	}
}

// table looks acts up by what they do.
type table struct {
	acts  []Act
	verb  map[string][]int
	inks  map[Thing][]int // acts that lay ink on a layer
	heats map[Thing][]int // acts that set it
	leaf  map[Thing][]int // acts that lay ink on a leaf, or set it
	ready map[Thing]int   // the act after which a leaf is one piece in the hand
	cuts  map[Thing]int   // the act that cuts a leaf
}

func newTable(acts []Act) *table {
	t := &table{acts: acts, verb: map[string][]int{}, inks: map[Thing][]int{}, heats: map[Thing][]int{}, leaf: map[Thing][]int{}, ready: map[Thing]int{}, cuts: map[Thing]int{}}
	for i := range acts {
		a := &acts[i]
		t.verb[a.ID.Verb] = append(t.verb[a.ID.Verb], i)
		for _, l := range a.inks {
			t.inks[l] = append(t.inks[l], i)
		}
		for _, l := range a.heats {
			t.heats[l] = append(t.heats[l], i)
		}
		if len(a.inks)+len(a.heats) > 0 {
			t.leaf[a.leaf] = append(t.leaf[a.leaf], i)
		}
		switch a.ID.Verb {
		case Fold, Cut:
			t.cuts[a.leaf] = i
			if a.leaf.Motif == "" || len(a.pops) > 0 {
				t.ready[a.leaf] = i
			}
		case Pop:
			for _, l := range a.pops {
				t.ready[l] = i
			}
		case Trim, Open, Score:
			t.ready[a.leaf] = i
		case Plies:
			t.ready[a.leaf] = i // after the pop of it, which comes before in the list
		}
	}
	return t
}

// all lists the acts of some verbs.
func (t *table) all(verbs ...string) (out []int) {
	for _, v := range verbs {
		out = append(out, t.verb[v]...)
	}
	return out
}

// joins lists the acts that put a leaf onto something.
func (t *table) joins() []int {
	return slices.Concat(t.verb[Glue], t.verb[Fill], t.verb[Place], t.verb[Tie], t.verb[Mount], t.verb[Elsewhere])
}

func cutFirst(t *table, need func(first, then int)) {
	for i, a := range t.acts {
		if c, ok := t.cuts[a.leaf]; ok && len(a.inks)+len(a.heats)+a.seq > 0 && !t.acts[c].cutsOut {
			need(c, i)
		}
	}
}

func hostFirst(t *table, need func(first, then int)) {
	for i, a := range t.acts {
		for _, l := range a.over {
			for _, j := range slices.Concat(t.inks[l], t.heats[l]) {
				need(j, i)
			}
		}
	}
}

func inTurn(t *table, need func(first, then int)) {
	last := map[Thing]int{}
	for i, a := range t.acts {
		if a.seq == 0 {
			continue
		}
		if j, ok := last[a.series]; ok {
			need(j, i)
		}
		last[a.series] = i
	}
}

func lightFirst(t *table, need func(first, then int)) {
	of := map[Thing][]int{}
	for _, i := range t.verb[Print] {
		if a := t.acts[i]; a.rank > 0 {
			id := Thing{Element: a.makes, Motif: a.ID.Motif, Colourway: a.ID.Colourway}
			of[id] = append(of[id], i)
		}
	}
	for _, prints := range of {
		for _, i := range prints {
			for _, j := range prints {
				if t.acts[j].rank < t.acts[i].rank && t.acts[j].stack < t.acts[i].stack {
					need(j, i)
					for _, l := range t.acts[j].inks {
						for _, h := range t.heats[l] {
							need(h, i)
						}
					}
				}
			}
		}
	}
}

func setInk(t *table, need func(first, then int)) {
	for _, h := range t.verb[Heat] {
		for _, l := range t.acts[h].heats {
			for _, i := range t.inks[l] {
				need(i, h)
			}
		}
	}
}

// dry: nothing is cut out, trimmed or popped before all ink on its leaf is dry.
func dry(t *table, need func(first, then int)) {
	for i, a := range t.acts {
		leaves := a.pops
		if a.cutsOut {
			leaves = []Thing{a.leaf}
		}
		for _, l := range leaves {
			for _, j := range t.leaf[l] {
				need(j, i)
			}
			if c, ok := t.cuts[l]; ok && c != i {
				need(c, i)
			}
		}
	}
}

// cutOutOf: a sheet that letters are cut out of is treated to its end before.
func cutOutOf(t *table, need func(first, then int)) {
	for i, a := range t.acts {
		if a.from == (Thing{}) {
			continue
		}
		for _, j := range t.leaf[a.from] {
			need(j, i)
		}
		if r, ok := t.ready[a.from]; ok {
			need(r, i)
		}
	}
}

func masked(t *table, need func(first, then int)) {
	masks := map[string]int{}
	for _, i := range t.verb[Mask] {
		masks[t.acts[i].masks] = i
	}
	for _, i := range t.verb[Print] {
		if m, ok := masks[t.acts[i].makes]; ok {
			need(i, m)
			for _, l := range t.acts[i].inks {
				for _, h := range t.heats[l] {
					need(h, m)
				}
			}
		}
	}
	for i := range t.acts {
		for _, e := range t.acts[i].masked {
			if m, ok := masks[e]; ok {
				need(m, i)
			}
		}
	}
}

// made: a leaf and what carries it are whole before they are joined.
func made(t *table, need func(first, then int)) {
	for _, i := range t.verb[Plies] {
		if c, ok := t.cuts[t.acts[i].leaf]; ok {
			need(c, i)
		}
		for _, p := range t.verb[Pop] {
			if slices.Contains(t.acts[p].pops, t.acts[i].leaf) {
				need(p, i)
			}
		}
	}
	for _, i := range t.joins() {
		for _, l := range []Thing{t.acts[i].leaf, t.acts[i].onto} {
			if r, ok := t.ready[l]; ok {
				need(r, i)
			}
		}
		// A sheet is treated to its end before it is stuck down.
		if l := t.acts[i].leaf; l.Motif == "" {
			for _, j := range t.leaf[l] {
				need(j, i)
			}
		}
	}
}

// under: of two pieces that overlap the lower is put down first. A piece that is put on
// another, or on one that is put on that, lies over it whenever that is done.
func under(t *table, need func(first, then int)) {
	onto := map[Thing]Thing{}
	for _, i := range t.verb[Glue] {
		onto[t.acts[i].leaf] = t.acts[i].onto
	}
	rides := func(leaf, on Thing) bool {
		for n := 0; n <= len(onto); n++ {
			next, ok := onto[leaf]
			if !ok || next == leaf {
				return false
			}
			if next == on {
				return true
			}
			leaf = next
		}
		return false
	}
	for _, verbs := range [][]string{{Glue}, {Place, Tie}} {
		of := map[Thing][]int{}
		for _, i := range t.all(verbs...) {
			a := t.acts[i]
			id := Thing{Motif: a.leaf.Motif, Colourway: a.leaf.Colourway}
			if verbs[0] == Place {
				id = Thing{}
			}
			of[id] = append(of[id], i)
		}
		for _, pile := range of {
			for _, i := range pile {
				for _, j := range pile {
					a, b := &t.acts[j], &t.acts[i]
					if a.stack < b.stack && b.onto != a.leaf && !rides(b.leaf, a.leaf) && a.outline.Overlaps(b.outline) {
						need(j, i)
					}
				}
			}
		}
	}
}

// closed: a shaker is built from its front backwards, each on the one before.
func closed(t *table, need func(first, then int)) {
	all := t.all(Glue, Fill)
	for _, i := range all {
		a := &t.acts[i]
		if a.leaf.Motif != "" || a.onto.Element != a.leaf.Element {
			continue
		}
		for _, j := range all {
			if t.acts[j].leaf == a.onto {
				need(j, i)
			}
		}
	}
}

// pressed: what is glued onto a piece is glued before that piece goes on its foam.
func pressed(t *table, need func(first, then int)) {
	raised := map[Thing]int{}
	for _, i := range t.verb[Glue] {
		if t.acts[i].raised {
			raised[t.acts[i].leaf] = i
		}
	}
	for _, i := range t.verb[Glue] {
		if r, ok := raised[t.acts[i].onto]; ok {
			need(i, r)
		}
	}
}

// whole: all of an image is stacked before it is put down, and its loose pieces are out.
func whole(t *table, need func(first, then int)) {
	of := map[Thing][]int{}
	for _, i := range slices.Concat(t.verb[Glue], t.verb[Plies], t.verb[Pop], t.verb[CutOut]) {
		id := t.acts[i].ID
		of[Thing{Motif: id.Motif, Colourway: id.Colourway}] = append(of[Thing{Motif: id.Motif, Colourway: id.Colourway}], i)
	}
	for _, i := range t.all(Place, Elsewhere) {
		l := t.acts[i].leaf
		if l.Motif == "" {
			// Letters: every one cut, stacked and on its shadow.
			for _, j := range slices.Concat(t.verb[Cut], t.verb[Glue], t.verb[Plies]) {
				if a := t.acts[j]; a.ID.Element == l.Element && a.ID.Motif == "" && a.leaf != l {
					need(j, i)
				}
			}
			continue
		}
		for _, j := range of[Thing{Motif: l.Motif, Colourway: l.Colourway}] {
			if t.acts[j].onto.Element != "" {
				continue // glued onto what carries the image, beside it
			}
			need(j, i)
		}
	}
}

// besideRaised: a leaf takes its ink before anything is put on it.
func besideRaised(t *table, need func(first, then int)) {
	for _, i := range t.all(Glue, Place, Tie, Mount) {
		for _, j := range t.leaf[t.acts[i].onto] {
			need(j, i)
		}
	}
}

// heatBeforeFoam: foam and what else heat warps goes on when all heating is done.
func heatBeforeFoam(t *table, need func(first, then int)) {
	for _, i := range t.joins() {
		if !t.acts[i].raised && !t.acts[i].shy {
			continue
		}
		for _, h := range t.verb[Heat] {
			need(h, i)
		}
	}
}

// trimmed: all that hangs over a panel is on before it is trimmed, and it is trimmed before the panel
// is mounted.
func trimmed(t *table, need func(first, then int)) {
	for _, i := range t.verb[TrimEdge] {
		panel := t.acts[i].onto
		// No blade goes through a ribbon, where it passes one at all; one that lies beneath what is
		// trimmed is on before.
		for _, j := range slices.Concat(t.verb[Glue], t.verb[Place], t.verb[Tie]) {
			switch a := &t.acts[j]; {
			case slices.Contains(t.acts[i].trims(), a.ID.Element):
				need(j, i)
			case a.ID.Verb == Tie && t.acts[i].cutsInto(a):
				need(i, j)
			}
		}
		for _, j := range t.verb[Mount] {
			if t.acts[j].leaf == panel {
				need(i, j)
			}
		}
	}
}

// baseLast: everything is on a mat, and its ink, before it goes on what carries it; the
// card is whole before it is looked over.
func baseLast(t *table, need func(first, then int)) {
	onto := map[Thing][]int{}
	for _, i := range t.joins() {
		onto[t.acts[i].onto] = append(onto[t.acts[i].onto], i)
	}
	for _, i := range t.verb[Mount] {
		l := t.acts[i].leaf
		for _, j := range slices.Concat(onto[l], t.leaf[l]) {
			need(j, i)
		}
	}
	mounted := map[Thing]bool{}
	for _, i := range t.verb[Mount] {
		mounted[t.acts[i].leaf] = true
	}
	for _, end := range t.verb[Finish] {
		for i := range t.acts {
			// What goes into a mat is done when that is mounted, what goes into an image when
			// that is put down.
			a := &t.acts[i]
			put := a.ID.Verb == Glue || a.ID.Verb == Place || a.ID.Verb == Tie
			if i != end && a.leaf.Motif == "" && a.pops == nil && (a.ID.Verb == Mount || !mounted[a.leaf] && !put || put && !mounted[a.onto]) {
				need(i, end)
			}
		}
	}
}
