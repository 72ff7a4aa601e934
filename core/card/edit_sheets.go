package card

import (
	"fmt"
	"math"
	"slices"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/words"
)

// As is what a person calls a sheet that is added.
type As string

// Sheets as a person calls them.
const (
	AsFrame   As = "frame"
	AsWindow  As = "panel with a window"
	AsCircle  As = "circle"
	AsTag     As = "tag"
	AsBanner  As = "banner"
	AsBand    As = "band"
	AsLeaf    As = "vellum leaf"
	AsFringe  As = "fringe"
	AsSticker As = "sticker"
	AsPlain   As = "plain sheet"
)

// Ases lists them.
var Ases = []As{AsPlain, AsFrame, AsWindow, AsCircle, AsTag, AsBanner, AsBand, AsFringe, AsSticker, AsLeaf}

// How sheets start; our own defaults, mm.
const (
	frameWide  = 8.0                // of the rim of a frame
	bandHigh   = measure.Inch       // of a band across the panel
	leafFlap   = 0.5 * measure.Inch // of a vellum leaf: a bit over 6 in on a card of 5 1/2 (common practice, no source)
	tagWide    = 1.5 * measure.Inch
	tagHigh    = 3 * measure.Inch
	bannerWide = 2.5 * measure.Inch
	bannerHigh = 0.625 * measure.Inch
	circleWide = 1.75 * measure.Inch
	fringeHigh = 1.25 * measure.Inch
	stickerBig = 1 * measure.Inch
)

// AddSheet lays a sheet on the panel, as a person calls it: its size and outline start
// from the card.
type AddSheet struct {
	As As `json:"as" enum:"plain sheet,frame,panel with a window,circle,tag,banner,band,fringe,sticker,vellum leaf"`
}

func (e *AddSheet) apply(c *Card, k kit.Kit) error {
	if !slices.Contains(Ases, e.As) {
		return kit.Problem{Path: "addSheet.as", What: fmt.Sprintf("%q is no sheet; take %v", e.As, Ases)}
	}
	leaves, err := c.Nest()
	if err != nil {
		return fmt.Errorf("lay a sheet: %w", err)
	}
	panel := leaves[len(leaves)-1]
	on, paper := c.Panel()
	s := &Sheet{Paper: firstCard(k, paper)}
	el := Element{ID: c.fresh("s"), Name: c.freshName(words.Capital(string(e.As))), Face: Front, On: on, Bonds: Glue(firstGlue(k)), Sheet: s,
		Place: Place{X: panel.X + panel.Size.W/2, Y: panel.Y + panel.Size.H/2}}
	w, h := panel.Size.W, panel.Size.H
	switch e.As {
	case AsPlain:
		s.W, s.H = w/2, h/2
	case AsFrame:
		s.W, s.H = w*0.75, h*0.75
		s.Openings = []Opening{{Outline: Outline{Kind: Rectangle}, W: s.W - 2*frameWide, H: s.H - 2*frameWide}}
	case AsWindow:
		s.W, s.H = w, h
		s.Openings = []Opening{{Outline: Outline{Kind: Oval}, W: w * 0.6, H: h * 0.5}}
	case AsCircle:
		s.W, s.H, s.Shape = min(circleWide, w), min(circleWide, w), &Outline{Kind: Oval}
	case AsTag:
		s.W, s.H, s.Shape = min(tagWide, w), min(tagHigh, h), &Outline{Kind: Tag}
	case AsBanner:
		s.W, s.H, s.Shape = min(bannerWide, w), bannerHigh, &Outline{Kind: Notched}
	case AsBand:
		s.W, s.H = w, min(bandHigh, h/2)
	case AsFringe:
		s.W, s.H, s.Shape = w, min(fringeHigh, h/2), &Outline{Kind: Fringe}
		el.Place.Y = panel.Y + h - s.H/2
	case AsSticker:
		s.W, s.H, s.Shape = stickerBig, stickerBig, &Outline{Kind: Oval}
	case AsLeaf:
		// As large as the front, its flap over the fold of the panel beneath.
		s.Paper, s.W, s.H = firstClear(k), c.Base.W, c.Base.H
		s.Flap = &Flap{Side: TopSide, Depth: leafFlap}
		el.On, el.Bonds, el.Place = "", nil, Place{X: c.Base.W / 2, Y: c.Base.H / 2}
		if s.Paper == "" {
			return kit.Problem{Path: "addSheet.as", What: "no vellum or acetate in the stores: put one in, then lay the leaf"}
		}
	}
	c.Elements = append(c.Elements, el)
	return nil
}

// Around makes the base fit a panel that is already cut: larger than it by a border.
type Around struct {
	W      float64 `json:"w" minimum:"10" maximum:"390" doc:"of the panel, mm"`
	H      float64 `json:"h" minimum:"10" maximum:"390" doc:"mm"`
	Border float64 `json:"border" minimum:"0" maximum:"60" doc:"that shows all round, mm"`
}

func (e *Around) apply(c *Card, _ kit.Kit) error {
	if !sane(e.W, 10, 390) || !sane(e.H, 10, 390) || !sane(e.Border, 0, 60) {
		return kit.Problem{Path: "around.w", What: "the panel is 10 to 390 mm each way, the border 0 to 60 mm"}
	}
	mats := c.Mats()
	w, h := e.W+2*e.Border, e.H+2*e.Border
	for i, m := range mats {
		if i == len(mats)-1 {
			el, err := c.element(m.ID)
			if err != nil {
				return err
			}
			el.Inset = Even(e.Border)
			break
		}
		// What lies beneath the panel keeps its own border, even or not.
		w, h = w+m.Inset.Left+m.Inset.Right, h+m.Inset.Top+m.Inset.Bottom
	}
	c.Base.Format, c.Base.W, c.Base.H = "custom", w, h
	for _, f := range measure.Formats() {
		for _, s := range []measure.Size{f.Size, {W: f.Size.H, H: f.Size.W}} {
			if math.Abs(s.W-c.Base.W) < sameSize && math.Abs(s.H-c.Base.H) < sameSize {
				c.Base.Format = f.ID
			}
		}
	}
	return nil
}

// sameSize is how near, mm, a base has to come to a known size to be called by it.
const sameSize = 0.2

// SetTucks says which parts of an element cross another the other way than the rest.
type SetTucks struct {
	Element string   `json:"element"`
	With    string   `json:"with" doc:"the other element"`
	Parts   []string `json:"parts" nullable:"false" maxItems:"60" doc:"layers of the image, or numbers of letters; none: all as the rest"`
}

func (e *SetTucks) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	tucks := slices.DeleteFunc(slices.Clone(el.Tucks), func(t Tuck) bool { return t.With == e.With })
	for _, p := range e.Parts {
		tucks = append(tucks, Tuck{Part: p, With: e.With})
	}
	el.Tucks = tucks
	return nil
}

// Together puts elements into a group, or takes them out of theirs.
type Together struct {
	Elements []string `json:"elements" nullable:"false" minItems:"1" maxItems:"400"`
	Apart    bool     `json:"apart,omitempty" doc:"out of their groups"`
}

func (e *Together) apply(c *Card, _ kit.Kit) error {
	name := ""
	if !e.Apart {
		taken := map[string]bool{}
		for _, o := range c.Elements {
			taken[o.Group] = true
		}
		for n := 1; name == "" || taken[name]; n++ {
			name = fmt.Sprint("g", n)
		}
	}
	for _, id := range e.Elements {
		el, err := c.element(id)
		if err != nil {
			return err
		}
		el.Group = name
	}
	return nil
}

// firstClear is the first stock owned that is seen through.
func firstClear(k kit.Kit) string {
	for _, p := range k.Papers {
		if !p.Opaque() {
			return p.ID
		}
	}
	return ""
}

// darkCard is the darkest plain card owned that is not the one given.
func darkCard(k kit.Kit, but string) string {
	best, least := "", 101.0
	for _, p := range k.Papers {
		if p.Kind != kit.PaperCard || p.ID == but {
			continue
		}
		if c, err := colour.ParseHex(p.Colour); err == nil && c.Lab().L < least {
			best, least = p.ID, c.Lab().L
		}
	}
	return best
}

// Flush says whether what hangs over what carries elements is trimmed off.
type Flush struct {
	Elements []string `json:"elements" nullable:"false" minItems:"1" maxItems:"400"`
	On       bool     `json:"on"`
}

func (e *Flush) apply(c *Card, _ kit.Kit) error {
	for _, id := range e.Elements {
		el, err := c.element(id)
		if err != nil {
			return err
		}
		el.Flush = e.On
	}
	return nil
}
