package build

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"

	"ochrestone/core/card"
	"ochrestone/core/layout"
	"ochrestone/core/shape"
)

// past is how far, mm², letters may stick out of the sheet they are cut out of without it
// being said.
const past = 0.5

// cutFrom is what lies on every letter of a word that is cut out of a treated sheet: what
// the sheet has there, so that its bands run on through the word. Their card becomes the
// sheet's.
func (b *Build) cutFrom(t *Thing, l *card.Letters, cut []shape.Region, images []Image) [][]Film {
	e, ok := b.Card.Element(l.From.Sheet)
	if !ok || e.Sheet == nil {
		t.Problem = "The sheet it is cut out of is not there any more: choose another, or plain card."
		return nil
	}
	if e.Face != card.Beside {
		t.Problem = "It is cut out of a sheet that lies on the card: lay that sheet beside the card first."
		return nil
	}
	l.Paper = e.Sheet.Paper
	made := b.remembered(e, e.Place, e.Sheet.W-2*e.Sheet.Trim, e.Sheet.H-2*e.Sheet.Trim, images)
	at := card.Place{X: l.From.X, Y: l.From.Y, Turn: l.From.Turn}
	out := 0.0
	laid := make([]shape.Region, len(cut))
	for n, g := range cut {
		laid[n] = layout.Place(g, shape.Box{}, at)
		if rest, err := laid[n].Minus(made.local); err == nil {
			out += rest.Area()
		}
	}
	if out > past {
		t.Problem = fmt.Sprintf("It does not fit on the sheet it is cut out of: %.0f mm² of its letters stick out. Move it there, make it smaller, or the sheet larger.", out)
	}
	find := func() ([][]Film, error) { return onLetters(made.patches, laid, at), nil }
	if b.with.Memory == nil {
		films, _ := find()
		return films
	}
	key := sha256.New()
	sheet := b.sheetKey(e, e.Place, e.Sheet.W-2*e.Sheet.Trim, e.Sheet.H-2*e.Sheet.Trim, images)
	key.Write(sheet[:])
	if err := json.NewEncoder(key).Encode(at); err != nil {
		fmt.Fprint(key, err)
	}
	for _, g := range laid {
		noteRegion(key, g)
	}
	films, _ := b.with.Memory.words.Get([32]byte(key.Sum(nil)), find)
	return films
}

// onLetters is what of the patches of a sheet lies on letters that are laid on it, in the
// frame of the word.
func onLetters(patches []Patch, laid []shape.Region, at card.Place) [][]Film {
	films := make([][]Film, len(laid))
	for n, g := range laid {
		box := g.Bounds()
		for _, p := range patches {
			if p.bare || !p.box.Meets(box) {
				continue
			}
			in := g
			whole := p.Region.Covers(g)
			if !whole {
				var err error
				if in, err = g.Intersect(p.Region); err != nil || in.Empty() {
					continue
				}
			}
			if whole {
				films[n] = films[n][:0] // it hides what was laid before it
			}
			films[n] = append(films[n], Film{Region: toSheet(in, at), Colour: p.Colour.Hex()})
		}
	}
	return films
}
