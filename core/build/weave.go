package build

import (
	"slices"

	"ochrestone/core/card"
	"ochrestone/core/motif"
)

// Weave is a part that cannot cross another thing the way it is asked to: something else
// would have to lie both over and beneath.
type Weave struct {
	Element, Part, With string
}

// weave finds the order of the pieces from the lowest up where parts cross other things
// the other way than the rest. Where they cannot all be, the one is left out without which the
// others can, and noted.
func (b *Build) weave() {
	type tuck struct {
		at int // thing
		card.Tuck
	}
	var all []tuck
	for i, t := range b.Things {
		for _, k := range t.Element.Tucks {
			all = append(all, tuck{i, k})
		}
	}
	if len(all) == 0 {
		return
	}
	n := len(b.Pieces)
	thing := make([]int, n)
	for i, t := range b.Things {
		for k := t.From; k < t.To; k++ {
			thing[k] = i
		}
	}
	leafed := make([]int, len(b.Things)) // the first leaf of each thing
	for i, t := range b.Things {
		for leafed[i] = t.From; leafed[i] < t.To && b.Pieces[leafed[i]].Print(); leafed[i]++ {
		}
	}
	// Pieces that lie over each other, the lower first as long as nothing is tucked.
	var pairs [][2]int
	for i := range n {
		bi := b.Pieces[i].Outline.Bounds()
		for j := i + 1; j < n; j++ {
			if bi.Meets(b.Pieces[j].Outline.Bounds()) && b.Pieces[i].Outline.Overlaps(b.Pieces[j].Outline) {
				if thing[i] == thing[j] && b.Pieces[j].ID.Part == StencilledPart && leafed[thing[i]] <= i {
					continue // it is ink on what is printed beneath that piece, and holds nothing up
				}
				pairs = append(pairs, [2]int{i, j})
			}
		}
	}
	flip := func(kept []tuck) [][2]int {
		other := map[[2]int]bool{} // piece and thing that cross the other way
		for _, k := range kept {
			with := slices.IndexFunc(b.Things, func(t Thing) bool { return t.Element.ID == k.With })
			for _, p := range b.going(k.at, k.Part) {
				other[[2]int{p, with}] = true
			}
		}
		flipped := make([][2]int, len(pairs))
		for i, p := range pairs {
			flipped[i] = p
			if other[[2]int{p[0], thing[p[1]]}] != other[[2]int{p[1], thing[p[0]]}] {
				flipped[i] = [2]int{p[1], p[0]}
			}
		}
		return flipped
	}
	possible := func(kept []tuck) bool {
		_, ok := upwards(n, flip(kept))
		return ok
	}
	kept := all
	for len(kept) > 0 && !possible(kept) {
		// The one without which the others go; where there is none, the last.
		out := len(kept) - 1
		for i := len(kept) - 1; i >= 0; i-- {
			if possible(slices.Delete(slices.Clone(kept), i, i+1)) {
				out = i
				break
			}
		}
		k := kept[out]
		b.Woven = append(b.Woven, Weave{b.Things[k.at].Element.ID, k.Part, k.With})
		kept = slices.Delete(slices.Clone(kept), out, out+1)
	}
	flipped := flip(kept)
	if up, ok := upwards(n, flipped); ok && !slices.IsSorted(up) {
		b.Up = up
	}
	for i, p := range flipped {
		if p != pairs[i] {
			b.tucked = append(b.tucked, p)
		}
	}
}

// going lists the pieces of a thing that go with a part of it: the part and all that lies
// on it.
func (b *Build) going(i int, part string) (out []int) {
	t := b.Things[i]
	if t.Made < 0 {
		for p := t.From; p < t.To; p++ {
			if b.Pieces[p].ID.Part == part {
				out = append(out, p)
			}
		}
		return out
	}
	if part == CutoutPart {
		for p := t.From; p < t.To; p++ {
			out = append(out, p)
		}
		return out
	}
	views := b.Made[t.Made].Image.Shapes.Views
	for k := range views {
		for h := k; h != motif.Ground; h = views[h].Host {
			if views[h].Layer.ID != part {
				continue
			}
			// By its name: before the layers lies the card of a cut-out, after them what a stencil
			// left on the image.
			for p := t.From; p < t.To; p++ {
				if b.Pieces[p].ID.Part == views[k].Layer.ID {
					out = append(out, p)
				}
			}
			break
		}
	}
	return out
}

// upwards orders n pieces so that the first of every pair lies lower, staying with their
// own order where nothing says otherwise. ok is false where they go in a circle.
func upwards(n int, pairs [][2]int) (up []int, ok bool) {
	above := make([][]int, n)
	below := make([]int, n)
	for _, p := range pairs {
		above[p[0]] = append(above[p[0]], p[1])
		below[p[1]]++
	}
	done := make([]bool, n)
	for len(up) < n {
		next := -1
		for i := range n {
			if !done[i] && below[i] == 0 {
				next = i
				break
			}
		}
		if next < 0 {
			return nil, false
		}
		done[next] = true
		up = append(up, next)
		for _, j := range above[next] {
			below[j]--
		}
	}
	return up, true
}

// Beneath lists by piece the pieces that are tucked beneath it, though the rest of their
// thing lies over it or the rest of its own beneath theirs.
func (b *Build) Beneath() map[int][]int {
	out := map[int][]int{}
	for _, p := range b.tucked {
		out[p[1]] = append(out[p[1]], p[0])
	}
	return out
}

// Upward are the pieces from the lowest up, as indices of Pieces.
func (b *Build) Upward() []int {
	if b.Up != nil {
		return b.Up
	}
	out := make([]int, len(b.Pieces))
	for i := range out {
		out[i] = i
	}
	return out
}
