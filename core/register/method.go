package register

import (
	"fmt"
	"slices"

	"ochrestone/core/words"
)

// Way is a way of placing a layer.
type Way struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Spread  Spread  `json:"spread"`
	Round   *Spread `json:"-"` // of a die laid round a print, where that repeats otherwise
	Own     bool    `json:"own" doc:"the spread is the person's own, from the log or typed"`
	Typed   bool    `json:"typed,omitempty" doc:"the person typed it"`
	From    int     `json:"from,omitempty" doc:"placements it was learned from"`
	Prepare string  `json:"prepare" doc:"what it needs beforehand"`
	For     []Piece `json:"-"`
}

// Piece is what is placed.
type Piece int

// What is placed.
const (
	CutPiece Piece = iota // a cut piece, glued in its place
	Stamping              // a stamp's print
	Stencil               // an opening of a stencil
	DieRound              // a die laid round a print, to cut it out
)

func (w Way) serves(k Piece) bool { return slices.Contains(w.For, k) }

// of is the way as it repeats with what is placed.
func (w Way) of(k Piece) Way {
	if k == DieRound && w.Round != nil {
		w.Spread = *w.Round
	}
	return w
}

// RoundKey is by what name the spread of a way is typed for a die laid round a print.
func RoundKey(way string) string { return way + " round" }

// Typed replaces the spreads of ways by those a person typed, by the id of the way, or by its RoundKey
// for a die laid round a print: their word goes before what was learned. Spreads that cannot be are
// passed over.
func Typed(ways []Way, typed map[string]Spread) []Way {
	out := slices.Clone(ways)
	for i := range out {
		w := &out[i]
		if s, ok := typed[w.ID]; ok && s.sound() {
			w.Spread, w.Own, w.Typed, w.From = s, true, true, 0
		}
		if s, ok := typed[RoundKey(w.ID)]; ok && s.sound() {
			w.Round, w.Own, w.Typed = &s, true, true
		}
	}
	return out
}

// sound reports whether a spread can be anybody's.
func (s Spread) sound() bool { return s.Shift > 0 && s.Shift <= 10 && s.Turn >= 0 && s.Turn <= 45 }

// Ways lists the ways of placing with spreads that are our own defaults, until
// measured prints give the person's own. What each needs is common practice, no
// source.
func Ways() []Way {
	return []Way{
		{ID: "eye", Name: "by eye", Spread: Spread{0.5, 0.8}, For: []Piece{CutPiece, Stamping, Stencil, DieRound}, Prepare: "Nothing. Good light from the side, and both eyes over the work."},
		{ID: "template", Name: "template", Spread: Spread{0.3, 0.5}, For: []Piece{CutPiece, Stamping, DieRound}, Prepare: "The waste sheet of the layer, or its outline cut from scrap, laid round the place."},
		{ID: "die", Name: "die as a guide", Spread: Spread{0.25, 0.4}, For: []Piece{Stamping}, Prepare: "The die laid round the image with low-tack tape, the stamp laid in it. The cutting edge is sharp: hold it by the rim."},
		{ID: "hole", Name: "back into its own hole", Spread: Spread{0.15, 0.3}, For: []Piece{CutPiece, Stamping}, Prepare: "The piece cut but left in its waste sheet until it is done; one hole for every copy."},
		{ID: "lines", Name: "die taped once it lies even", Spread: Spread{0.3, 0.4}, For: []Piece{DieRound}, Prepare: "Low-tack tape over the die once it lies even all round. The cutting edge is sharp: hold it by the rim, and keep fingers off the rollers of the machine."},
		{ID: "corner", Name: "corner of the positioner", Spread: Spread{0.12, 0.15}, For: []Piece{Stamping}, Prepare: "The paper against the same corner each time, magnets on it, the stamp left on the lid from the first print to the last. Strong magnets pinch: keep them from small children and from pacemakers."},
		{ID: "etched", Name: "etched lines", Spread: Spread{0.35, 0.5}, For: []Piece{Stencil}, Prepare: "A stencil whose etched lines are laid over what is there, hinged along one edge with tape."},
		{ID: "jig", Name: "turning jig", Spread: Spread{0.2, 0.3}, For: []Piece{Stamping, Stencil}, Prepare: "The jig printed at true size on heavy card, its check bar measured, fixed in the positioner."},
	}
}

// Steadiest is the way that repeats best among those that serve what is placed.
func Steadiest(k Piece, ways []Way) Way {
	var best Way
	for _, w := range ways {
		if w = w.of(k); w.serves(k) && (best.ID == "" || w.Spread.Shift < best.Spread.Shift) {
			best = w
		}
	}
	return best
}

// Prospect is how a way of placing would do for a layer.
type Prospect struct {
	Way
	Chance float64 `json:"chance" doc:"that one placement comes out, 0 to 1"`
	Blanks int     `json:"blanks" doc:"to prepare so that the run comes out at 95 %; 0 when a thousand would not do"`
}

// Certainty is how sure a run is to come out with the blanks named.
const Certainty = 0.95

// enough is the chance past which a simpler way is preferred to a better one.
const enough = 0.97

// Prospects ranks the ways that serve what is placed, simplest first, and picks one: the
// first that comes out in enough placements, else the best. run is how many are
// wanted.
func Prospects(p Play, k Piece, run int, ways []Way, seed uint64) (all []Prospect, pick int, why string) {
	return ProspectsBy(func(s Spread) float64 { return Chance(p, s, seed) }, k, run, ways)
}

// ProspectsBy is Prospects with the chance of a spread given, as one that is
// remembered.
func ProspectsBy(chance func(Spread) float64, k Piece, run int, ways []Way) (all []Prospect, pick int, why string) {
	for _, w := range ways {
		if !w.serves(k) {
			continue
		}
		w = w.of(k)
		c := chance(w.Spread)
		all = append(all, Prospect{w, c, Blanks(run, c, Certainty)})
	}
	if len(all) == 0 {
		return nil, -1, ""
	}
	pick = slices.IndexFunc(all, func(q Prospect) bool { return q.Chance >= enough })
	if pick >= 0 {
		return all, pick, fmt.Sprintf("%s is enough: %.0f of 100 come out, and it asks for least.", words.Capital(all[pick].Name), 100*all[pick].Chance)
	}
	pick = 0
	for i, q := range all {
		if q.Chance > all[pick].Chance {
			pick = i
		}
	}
	return all, pick, fmt.Sprintf("%s does best, yet only %.0f of 100 come out: prepare spare blanks, or design more play.", words.Capital(all[pick].Name), 100*all[pick].Chance)
}
