package card

import (
	"fmt"
	"slices"
	"strings"

	"ochrestone/core/kit"
)

// MaxLots is how many sorts of cards one sitting makes of one design at most.
const MaxLots = 24

// Lot is so many cards of a sitting that are alike, where not all of them are.
type Lot struct {
	ID     string    `json:"id,omitempty" doc:"its own; given when it is set"`
	Name   string    `json:"name" maxLength:"60" doc:"what tells it from the others: a colourway, for whom it is"`
	Copies int       `json:"copies" minimum:"1" maximum:"200"`
	Swaps  []Swap    `json:"swaps,omitempty" maxItems:"60" doc:"colourways other than on the card"`
	Words  []Wording `json:"words,omitempty" maxItems:"60" doc:"words other than on the card"`
}

// Swap is a colourway that a lot has in the place of another.
type Swap struct {
	Motif string `json:"motif"`
	From  string `json:"from" doc:"colourway on the card"`
	To    string `json:"to" doc:"colourway of the lot"`
}

// Wording is what a lot says where the card says something else.
type Wording struct {
	Element string `json:"element" doc:"sheet or letters; empty for the base"`
	Was     string `json:"was" doc:"on the card"`
	Is      string `json:"is" minLength:"1" maxLength:"80"`
}

// Run is how many of it are made in one sitting, at least one: all its lots together, where
// it has any.
func (c Card) Run() int {
	n := 0
	for _, l := range c.Lots {
		n += l.Copies
	}
	if n > 0 {
		return n
	}
	return max(1, c.Copies)
}

// Says are the words on the card, those of letters cut with them, lowest first.
func (c Card) Says() (out []string) {
	said := func(all []Treatment) {
		for _, t := range all {
			if t.Words != nil {
				out = append(out, t.Words.Text)
			}
		}
	}
	said(c.Base.Treatments)
	for _, e := range c.Elements {
		if e.Letters != nil {
			out = append(out, e.Letters.Text)
		}
		if e.Sheet != nil {
			said(e.Sheet.Treatments)
		}
	}
	return out
}

// Of is the card as a lot of it is made: with the lot's colourways and words, and so many
// of it. Swaps and words of what is no longer on the card change nothing.
func (c Card) Of(l Lot) Card {
	c.Copies, c.Lots = l.Copies, nil
	c.Elements = slices.Clone(c.Elements)
	for i := range c.Elements {
		e := &c.Elements[i]
		if im := e.Image; im != nil {
			if to := l.way(c, im.Motif, im.Colourway); to != im.Colourway {
				made := *im
				made.Colourway = to
				e.Image = &made
			}
		}
		if t := e.Letters; t != nil {
			if is := l.says(e.ID, t.Text); is != t.Text {
				said := *t
				said.Text = is
				e.Letters = &said
			}
		}
		if e.Sheet != nil {
			s := *e.Sheet
			s.Treatments = l.treated(c, e.ID, s.Treatments)
			e.Sheet = &s
		}
	}
	c.Base.Treatments = l.treated(c, "", c.Base.Treatments)
	return c
}

// treated are the treatments of a leaf as a lot has them.
func (l Lot) treated(c Card, element string, all []Treatment) []Treatment {
	out := slices.Clone(all)
	for i := range out {
		if w := out[i].Words; w != nil {
			said := *w
			said.Text = l.says(element, w.Text)
			out[i].Words = &said
		}
		if t := out[i].Turned; t != nil {
			turned := *t
			turned.Colourways = slices.Clone(t.Colourways)
			for j, w := range turned.Colourways {
				turned.Colourways[j] = l.way(c, t.Motif, w)
			}
			out[i].Turned = &turned
		}
		if p := out[i].Print; p != nil {
			printed := *p
			printed.Colourways = slices.Clone(p.Colourways)
			for j, w := range printed.Colourways {
				printed.Colourways[j] = l.way(c, p.Motif, w)
			}
			out[i].Print = &printed
		}
	}
	return out
}

// way is the colourway a lot has for one on the card.
func (l Lot) way(c Card, motif, way string) string {
	for _, s := range l.Swaps {
		if s.Motif != motif || s.From != way {
			continue
		}
		if m, ok := c.Motif(motif); ok {
			if _, ok := m.Colourway(s.To); ok {
				return s.To
			}
		}
	}
	return way
}

func (l Lot) says(element, text string) string {
	for _, w := range l.Words {
		if w.Element == element && w.Was == text {
			return w.Is
		}
	}
	return text
}

// SetLots says how the cards of a sitting differ; none: they are all alike.
type SetLots struct {
	Lots []Lot  `json:"lots" nullable:"false" maxItems:"24"`
	Each string `json:"each,omitempty" doc:"instead: a lot for every colourway of this image in which something was chosen, the cards shared out among them"`
}

// EditLot changes one lot, or adds one; what is not given stays.
type EditLot struct {
	ID     string   `json:"id,omitempty" doc:"of the lot; none: another is added, with one card"`
	Name   *string  `json:"name,omitempty"`
	Copies *int     `json:"copies,omitempty"`
	Swap   *Swap    `json:"swap,omitempty" doc:"a colourway; to the same one: as on the card"`
	Words  *Wording `json:"words,omitempty" doc:"words; the same ones: as on the card"`
	Away   bool     `json:"away,omitempty" doc:"it is not made"`
}

func (e *EditLot) apply(c *Card, k kit.Kit) error {
	lots := slices.Clone(c.Lots)
	at := slices.IndexFunc(lots, func(l Lot) bool { return l.ID == e.ID })
	switch {
	case e.ID == "":
		at = len(lots)
		lots = append(lots, Lot{Copies: 1})
	case at < 0:
		return fmt.Errorf("the lot %q %w", e.ID, ErrGone)
	}
	l := &lots[at]
	if e.Name != nil {
		l.Name = *e.Name
	}
	if e.Copies != nil {
		l.Copies = *e.Copies
	}
	if s := e.Swap; s != nil {
		l.Swaps = slices.DeleteFunc(slices.Clone(l.Swaps), func(o Swap) bool { return o.Motif == s.Motif && o.From == s.From })
		if s.From != s.To {
			l.Swaps = append(l.Swaps, *s)
		}
	}
	if w := e.Words; w != nil {
		l.Words = slices.DeleteFunc(slices.Clone(l.Words), func(o Wording) bool { return o.Element == w.Element && o.Was == w.Was })
		if w.Was != w.Is {
			l.Words = append(l.Words, *w)
		}
	}
	if e.Away {
		lots = slices.Delete(lots, at, at+1)
	}
	return (&SetLots{Lots: lots}).apply(c, k)
}

// Blank reports whether nothing was chosen yet in a colourway of the image: no layer has an ink,
// and no piece is of another card than the rest. A single piece of plain card is a choice.
func (m Motif) Blank(w Colourway) bool {
	papers := map[string]bool{}
	pieces := 0
	for _, l := range m.Layers {
		f := w.Layers[l.ID]
		if f.First() != "" || f.Edge != "" || f.Back != "" {
			return false
		}
		if l.Make == Cut {
			pieces++
			papers[f.Paper] = true
		}
	}
	return pieces == 0 || pieces < len(m.Layers) || pieces > 1 && len(papers) <= 1
}

// each is a lot for every colourway of an image in which something was chosen: as many cards as
// there were, shared out, at least one of each.
func (c Card) each(motif string) ([]Lot, error) {
	m, ok := c.Motif(motif)
	if !ok || len(m.Colourways) == 0 {
		return nil, kit.Problem{Path: "lots.each", What: "there is no such image on the card"}
	}
	ways := slices.DeleteFunc(slices.Clone(m.Colourways), m.Blank)
	if len(ways) == 0 {
		return nil, kit.Problem{Path: "lots.each", What: "none of its colourways has an ink yet: colour them in Inks first"}
	}
	if len(ways) > MaxLots {
		return nil, kit.Problem{Path: "lots.each", What: fmt.Sprintf("it has %d colourways; at most %d sorts of cards are made in one sitting", len(ways), MaxLots)}
	}
	n := len(ways)
	all := c.Run()
	var out []Lot
	for i, w := range ways {
		l := Lot{Name: w.Name, Copies: max(1, (all+n-1-i)/n)}
		for _, on := range c.Ways(motif) {
			if on != w.ID {
				l.Swaps = append(l.Swaps, Swap{motif, on, w.ID})
			}
		}
		out = append(out, l)
	}
	return out, nil
}

// Ways lists the colourways of an image that are on the card, by itself or in patterns and
// prints, as they are met.
func (c Card) Ways(motif string) (out []string) {
	add := func(m string, ways ...string) {
		for _, w := range ways {
			if m == motif && !slices.Contains(out, w) {
				out = append(out, w)
			}
		}
	}
	treated := func(all []Treatment) {
		for _, t := range all {
			if t.Turned != nil {
				add(t.Turned.Motif, t.Turned.Colourways...)
			}
			if t.Print != nil {
				add(t.Print.Motif, t.Print.Colourways...)
			}
		}
	}
	for _, e := range c.Elements {
		if e.Image != nil {
			add(e.Image.Motif, e.Image.Colourway)
		}
		if e.Sheet != nil {
			treated(e.Sheet.Treatments)
		}
	}
	treated(c.Base.Treatments)
	return out
}

func (e *SetLots) apply(c *Card, _ kit.Kit) error {
	if e.Each != "" {
		lots, err := c.each(e.Each)
		if err != nil {
			return err
		}
		e = &SetLots{Lots: lots}
	}
	var out []Lot
	n := 0
	taken := map[string]bool{}
	for _, l := range e.Lots {
		taken[l.ID] = true
	}
	for i, l := range e.Lots {
		at := fmt.Sprintf("lots[%d]", i)
		l.Name = strings.TrimSpace(l.Name)
		if l.Copies < 1 {
			return kit.Problem{Path: at + ".copies", What: fmt.Sprintf("%d cards: make at least one of each, or take the lot away", l.Copies)}
		}
		if l.ID == "" {
			for k := 1; l.ID == "" || taken[l.ID]; k++ {
				l.ID = fmt.Sprintf("lot%d", k)
			}
			taken[l.ID] = true
		}
		for j, s := range l.Swaps {
			m, ok := c.Motif(s.Motif)
			if ok {
				_, ok = m.Colourway(s.To)
			}
			if !ok {
				return kit.Problem{Path: fmt.Sprintf("%s.swaps[%d].to", at, j), What: "the card has no such colourway of this image; make it in Inks first"}
			}
		}
		n += l.Copies
		out = append(out, l)
	}
	if n > MaxCopies {
		return kit.Problem{Path: "lots", What: tooMany(n)}
	}
	c.Lots = out
	if n > 0 {
		c.Copies = n
	}
	return nil
}

func tooMany(n int) string {
	return fmt.Sprintf("%d cards in one sitting: make 1 to %d, the rest in another", n, MaxCopies)
}

// lots checks how the cards of a sitting differ.
func (k *checker) lots(all []Lot) {
	k.bad(len(all) > MaxLots, "lots", fmt.Sprintf("at most %d sorts of cards in one sitting", MaxLots))
	seen := map[string]bool{}
	n := 0
	for i, l := range all {
		at := fmt.Sprintf("lots[%d]", i)
		k.bad(l.ID == "" || seen[l.ID], at+".id", "every lot has an id of its own")
		k.bad(l.Copies < 1, at+".copies", "make at least one of each, or take the lot away")
		k.bad(len([]rune(l.Name)) > 60, at+".name", "a name of at most 60 letters")
		seen[l.ID] = true
		n += l.Copies
	}
	k.bad(n > MaxCopies, "lots", tooMany(n))
}
