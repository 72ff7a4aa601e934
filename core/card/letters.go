package card

import (
	"fmt"
	"strings"

	"ochrestone/core/kit"
)

// Letters are words cut letter by letter, from a person's own alphabet of dies or from
// drawn letters, stacked as often as wanted.
type Letters struct {
	Text  string  `json:"text" minLength:"1" maxLength:"60"`
	Set   string  `json:"set,omitempty" doc:"alphabet of dies: a set whose parts are labelled with their letters; none: drawn letters"`
	Size  float64 `json:"size" minimum:"2" maximum:"150" doc:"height of a capital, mm; dies keep their own size"`
	Fit   float64 `json:"fit,omitempty" minimum:"0" maximum:"400" doc:"drawn letters are made as large as fills this width, mm; 0: as high as said"`
	Gap   float64 `json:"gap,omitempty" minimum:"-20" maximum:"50" doc:"between neighbours at their nearest, mm"`
	Space float64 `json:"space,omitempty" minimum:"0" maximum:"100" doc:"between words, mm; 0 takes a third of the height"`
	// Bounce lets letters dance off the line, Bend sets them on an arc.
	Bounce float64 `json:"bounce,omitempty" minimum:"0" maximum:"50" doc:"up and down off the line in turn, mm"`
	Bend   float64 `json:"bend,omitempty" minimum:"-1000" maximum:"1000" doc:"radius of the arc they stand on, mm; below 0 they hang in it; 0: straight"`
	Paper  string  `json:"paper" doc:"cardstock id"`
	Plies  int     `json:"plies,omitempty" minimum:"0" maximum:"6" doc:"how often every letter is cut and stacked; 0 counts as 1"`
	Shadow *Shadow `json:"shadow,omitempty" doc:"a larger copy beneath, of another card"`
	// Islands are the loose islands of closed letters; Bare ones are left out.
	Bare bool `json:"bare,omitempty" doc:"the loose islands of closed letters are left out"`
	// From is a treated sheet beside the card that they are cut out of, dies in reading order,
	// so that what is on it runs on through the word.
	From *CutFrom `json:"from,omitempty" doc:"cut out of a sheet beside the card, so that its bands run on through the word; none: plain card"`
	// Backing is cut with the letters: sheet of foam by its spacer, or adhesive sheet.
	Backing string `json:"backing,omitempty" doc:"spacer id of foam sheet, or adhesive id of adhesive sheet, cut with them"`

	extra extra
}

// CutFrom is where on a sheet the middle of a word lies that is cut out of it.
type CutFrom struct {
	Sheet string `json:"sheet" doc:"the sheet, by its element"`
	Spot
}

// Shadow is a larger copy of letters beneath them.
type Shadow struct {
	Paper string  `json:"paper" doc:"cardstock id"`
	By    float64 `json:"by" minimum:"0.3" maximum:"20" doc:"how much larger all round, mm"`
}

// Times is how often every letter is cut.
func (l Letters) Times() int { return max(1, l.Plies) }

// UnmarshalJSON keeps the fields it does not know.
func (l *Letters) UnmarshalJSON(doc []byte) (err error) {
	type plain Letters
	l.extra, err = read(doc, (*plain)(l))
	return err
}

// MarshalJSON writes the fields it did not know as they were.
func (l Letters) MarshalJSON() ([]byte, error) {
	type plain Letters
	return write(plain(l), l.extra)
}

func (l *Letters) check(k *checker, _ Card, _ Element, at string) {
	at += ".letters"
	k.bad(strings.TrimSpace(l.Text) == "", at+".text", "give the words")
	k.bad(!sane(l.Size, 2, 150) || !sane(l.Fit, 0, 400), at+".size", "letters are 2 to 150 mm high and fill up to 400 mm")
	k.bad(!sane(l.Gap, -20, 50) || !sane(l.Space, 0, 100) || !sane(l.Bounce, 0, 50) || !sane(l.Bend, -1000, 1000), at+".gap", "gaps are -20 to 50 mm, spaces to 100, bounce to 50, arcs to 1000 in radius")
	k.bad(l.Plies < 0 || l.Plies > 6, at+".plies", "letters are stacked 1 to 6 times")
	if l.From != nil {
		k.spot(at+".from", l.From.Spot)
	}
	k.bad(l.Shadow != nil && !sane(l.Shadow.By, 0.3, 20), at+".shadow.by", "a shadow is 0.3 to 20 mm larger all round")
}

// How letters start: a third of the card's height at the most, filling three quarters of
// its width, stacked twice; our own defaults.
const (
	lettersFill  = 0.75
	lettersHigh  = 18.0
	lettersPlies = 2
	lettersAt    = 0.5
)

// AddLetters lays words cut from card on the panel.
type AddLetters struct {
	Text string `json:"text,omitempty" maxLength:"60" doc:"none: hello"`
}

func (e *AddLetters) apply(c *Card, k kit.Kit) error {
	text := e.Text
	if text == "" {
		text = "hello"
	}
	on, paper := c.Panel()
	c.Elements = append(c.Elements, Element{ID: c.fresh("l"), Face: Front, On: on, Place: Place{X: c.Base.W / 2, Y: c.Base.H * lettersAt}, Bonds: Glue(firstGlue(k)),
		Letters: &Letters{Text: text, Size: lettersHigh, Fit: lettersFill * c.Base.W, Gap: 1, Paper: darkCard(k, paper), Plies: lettersPlies}})
	return nil
}

// SetLetters changes words cut from card.
type SetLetters struct {
	Element string  `json:"element"`
	Letters Letters `json:"letters" doc:"the whole of them"`
}

func (e *SetLetters) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	if el.Letters == nil {
		return kit.Problem{Path: "letters.element", What: fmt.Sprintf("%q is no letters", e.Element)}
	}
	l := e.Letters
	l.extra = el.Letters.extra
	el.Letters = &l
	return nil
}
