package card

import (
	"fmt"
	"reflect"
	"slices"
	"strings"
)

// Treatment is something done to a sheet: exactly one of its fields is set, or none
// where a later version made it. Places are from the middle of the sheet as it lies
// unturned, lengths in mm.
type Treatment struct {
	Words   *Words   `json:"words,omitempty"`
	Turned  *Turned  `json:"turned,omitempty"`
	Print   *Print   `json:"print,omitempty"`
	Fade    *Fade    `json:"fade,omitempty"`
	Bands   *Bands   `json:"bands,omitempty"`
	Stencil *Stencil `json:"stencil,omitempty"`
	Splash  *Splash  `json:"splash,omitempty"`
	Stroke  *Stroke  `json:"stroke,omitempty"`
	Pressed *Pressed `json:"pressed,omitempty"`
	Edged   *Edged   `json:"edged,omitempty"`
	Glaze   *Glaze   `json:"glaze,omitempty"`

	extra extra
}

// treats is what every treatment can do.
type treats interface {
	check(k *checker, c Card, e Element, at string)
}

// one is the treatment itself and the name of its field; nil where a later version made
// it, or where it is two things at once.
func (t Treatment) one() (found treats, name string, many bool) {
	v := reflect.ValueOf(t)
	for i := range v.NumField() {
		f := v.Field(i)
		if f.Kind() != reflect.Pointer || f.IsNil() {
			continue
		}
		if found != nil {
			return nil, "", true
		}
		found = f.Interface().(treats)
		name, _ = v.Type().Field(i).Tag.Lookup("json")
	}
	return found, name, false
}

// Spot is a place on a sheet.
type Spot struct {
	X    float64 `json:"x,omitempty" minimum:"-400" maximum:"400" doc:"to the right of the sheet's middle, mm"`
	Y    float64 `json:"y,omitempty" minimum:"-400" maximum:"400" doc:"down, mm"`
	Turn float64 `json:"turn,omitempty" minimum:"-360" maximum:"360" doc:"clockwise, degrees"`
}

// Words are stamped on a sheet, in its middle or at a spot of their own.
type Words struct {
	Text   string  `json:"text" maxLength:"80"`
	Ink    string  `json:"ink" doc:"ink id"`
	Letter float64 `json:"letter" minimum:"0.5" maximum:"100" doc:"height of a capital, mm"`
	// Shade is a further ink dabbed on the foot of the stamp: words in two tones.
	Shade  string `json:"shade,omitempty" doc:"ink id dabbed on the foot of the stamp, over the first: words in two tones"`
	Emboss bool   `json:"emboss,omitempty" doc:"heat embossed with powder"`
	// Stamp is all that is on the stamp, where only some of it is wanted.
	Stamp string `json:"stamp,omitempty" maxLength:"160" doc:"all that the stamp says, its lines apart by /, where only some of it is wanted"`
	Spot
	// Bend is the radius of the arc the words stand on; below 0 they hang in it.
	Bend float64 `json:"bend,omitempty" minimum:"-1000" maximum:"1000" doc:"radius of the arc they stand on, mm; below 0 they hang in it; 0: straight"`

	extra extra
}

// Besides are the lines of the stamp that are not wanted, as it says them; none where all are.
func (w Words) Besides() (out []string) {
	plain := func(s string) string { return strings.ToLower(strings.Join(strings.Fields(s), " ")) }
	wanted := " " + plain(strings.ReplaceAll(w.Text, "/", " ")) + " "
	for _, line := range strings.Split(w.Stamp, "/") {
		if l := plain(line); l != "" && !strings.Contains(wanted, " "+l+" ") {
			out = append(out, strings.TrimSpace(line))
		}
	}
	return out
}

// Finish is how the words are inked, as a layer of an image would be.
func (w Words) Finish() Finish {
	f := Finish{Ink: w.Ink}
	if w.Shade != "" {
		f.Blends = []Blend{{Ink: w.Shade, Zone: Foot}}
	}
	return f
}

// Turned is an image printed again and again on a sheet that is turned by the same step
// between strikes, while the stamp stays where it is.
type Turned struct {
	Motif string `json:"motif" doc:"image id"`
	// Colourways are those of the strikes in turn: fewer than strikes go round again.
	Colourways []string `json:"colourways" nullable:"false" minItems:"1" maxItems:"16" doc:"colourway ids, one for each strike in turn"`
	Turns      int      `json:"turns" minimum:"2" maximum:"16" doc:"strikes; the sheet is turned by 360°/turns between them"`
	Anti       bool     `json:"anti,omitempty" doc:"the sheet is turned anticlockwise"`
	Start      int      `json:"start" minimum:"1" maximum:"4" doc:"corner of the sheet at the top left for the first strike; corners are numbered clockwise"`
	X          float64  `json:"x" minimum:"-300" maximum:"300" doc:"middle of the image to the right of the sheet's at the first strike, mm"`
	Y          float64  `json:"y" minimum:"-300" maximum:"300" doc:"down, mm"`
	Turn       float64  `json:"turn" minimum:"-360" maximum:"360" doc:"of the image at the first strike, clockwise, degrees"`

	extra extra
}

// Print is an image printed on a sheet: once, or again and again in rows.
type Print struct {
	Motif      string   `json:"motif" doc:"image id"`
	Colourways []string `json:"colourways" nullable:"false" minItems:"1" maxItems:"40" doc:"colourway ids, taken in turn"`
	Spot
	Rows *Rows `json:"rows,omitempty" doc:"again and again over the whole sheet; none: once"`
}

// Rows repeat a print over a sheet, past its edges.
type Rows struct {
	Across float64 `json:"across" minimum:"2" maximum:"400" doc:"from middle to middle in a row, mm"`
	Down   float64 `json:"down" minimum:"2" maximum:"400" doc:"from row to row, mm"`
	Shift  float64 `json:"shift,omitempty" minimum:"0" maximum:"1" doc:"every other row is shifted by this share of the step across"`
	Turn   float64 `json:"turn,omitempty" minimum:"-360" maximum:"360" doc:"each next print is turned so much more, degrees"`
	Whole  bool    `json:"whole,omitempty" doc:"only prints that fall wholly on the sheet"`
}

// From is where a fade begins.
type From string

// Where fades begin.
const (
	FromAll         From = "all over"
	FromLeft        From = "left"
	FromRight       From = "right"
	FromTop         From = "top"
	FromFoot        From = "foot"
	FromTopLeft     From = "top left"
	FromTopRight    From = "top right"
	FromBottomLeft  From = "bottom left"
	FromBottomRight From = "bottom right"
	FromEdge        From = "edge"
	FromMiddle      From = "middle"
	FromSpot        From = "spot"
	FromImage       From = "round an image"
)

// Froms lists them.
var Froms = []From{FromAll, FromLeft, FromRight, FromTop, FromFoot, FromTopLeft, FromTopRight, FromBottomLeft, FromBottomRight, FromEdge, FromMiddle, FromSpot, FromImage}

// Fade is ink blended into a sheet: one, or several one after the other, fullest where it
// begins.
type Fade struct {
	From From     `json:"from" enum:"all over,left,right,top,foot,top left,top right,bottom left,bottom right,edge,middle,spot,round an image"`
	Inks []string `json:"inks" nullable:"false" minItems:"1" maxItems:"8" doc:"ink ids, from where it begins"`
	// Reach is how far it goes, all inks together, before it has faded out.
	Reach   float64 `json:"reach" minimum:"1" maximum:"600" doc:"how far it goes before it has faded out, mm"`
	Strikes int     `json:"strikes,omitempty" minimum:"0" maximum:"6" doc:"how often it is gone over; 0 counts as 1"`
	Tones   int     `json:"tones,omitempty" minimum:"0" maximum:"6" doc:"so many tones are to be told apart along it; 0: as many as come"`
	Round   string  `json:"round,omitempty" doc:"of a glow: the image it goes round, by its element; it follows where that is laid"`
	Spot
}

// Passes is how often the fade is gone over.
func (f Fade) Passes() int { return max(1, f.Strikes) }

// Bands are stripes of ink side by side, each blended or stamped between masks.
type Bands struct {
	Bands []Band  `json:"bands" nullable:"false" minItems:"1" maxItems:"30"`
	Gap   float64 `json:"gap,omitempty" minimum:"0" maximum:"100" doc:"of bare card between them: the width of the tape, mm"`
	Start float64 `json:"start,omitempty" minimum:"-400" maximum:"400" doc:"where the first begins, from the top of the sheet, or from its left where they stand upright, mm"`
	Up    bool    `json:"up,omitempty" doc:"they stand upright"`
}

// Band is one of them.
type Band struct {
	Ink string  `json:"ink" doc:"ink id"`
	W   float64 `json:"w" minimum:"0.5" maximum:"400" doc:"mm"`
}

// Sum is how much of the sheet the bands take up with the gaps between them, mm.
func (b Bands) Sum() float64 {
	sum := b.Gap * float64(len(b.Bands)-1)
	for _, x := range b.Bands {
		sum += x.W
	}
	return sum
}

// Stencil is ink through a stencil part, at a place and again wherever it is shifted to.
type Stencil struct {
	Set  string `json:"set" doc:"set id"`
	Part string `json:"part"`
	Ink  string `json:"ink" doc:"ink id"`
	Spot
	Shifts []Shifted `json:"shifts,omitempty" maxItems:"40" doc:"further places, from the first"`
	// Over says that it colours what is printed on the sheet, so that every opening has to
	// have a print beneath.
	Over  bool `json:"over,omitempty" doc:"laid over the images printed on the sheet, to colour them"`
	Taped bool `json:"taped,omitempty" doc:"of one laid over images: openings that have no print beneath are covered with tape"`
	// Paste goes on with a blade and dries thick.
	Paste bool `json:"paste,omitempty" doc:"paste instead of ink: it dries raised"`
	// Minutes are the paste's own until it is dry.
	Minutes float64 `json:"minutes,omitempty" minimum:"0" maximum:"2880" doc:"of paste: until it is dry, by its label; 0 takes what is usual"`
}

// Shifted is where a stencil is laid again, from its first place.
type Shifted struct {
	X    float64 `json:"x" minimum:"-400" maximum:"400" doc:"mm"`
	Y    float64 `json:"y" minimum:"-400" maximum:"400" doc:"mm"`
	Flip bool    `json:"flip,omitempty" doc:"laid face down, so that the repeat is not seen"`
}

// Splash is drops thrown over a sheet, or over a round place on it.
type Splash struct {
	Ink string `json:"ink,omitempty" doc:"ink id; none: clear water"`
	// Drops are so many, Size the width of a middling one.
	Drops int     `json:"drops" minimum:"1" maximum:"200"`
	Size  float64 `json:"size" minimum:"0.2" maximum:"20" doc:"across a middling drop, mm"`
	Dwell float64 `json:"dwell,omitempty" minimum:"0" maximum:"600" doc:"of water: how long it lies before it is blotted, seconds"`
	Reach float64 `json:"reach,omitempty" minimum:"0" maximum:"400" doc:"within so far of the spot; 0: all over, mm"`
	Seed  int     `json:"seed,omitempty" minimum:"0" maximum:"9999" doc:"another throw"`
	Spot
}

// Stroke is a painted line of a width.
type Stroke struct {
	Ink    string   `json:"ink" doc:"ink id"`
	W      float64  `json:"w" minimum:"0.2" maximum:"100" doc:"mm"`
	Points []Offset `json:"points" nullable:"false" minItems:"2" maxItems:"60" doc:"from the middle of the sheet"`
}

// Relief is a sort of dry embossing.
type Relief string

// Sorts of dry embossing.
const (
	Ribs   Relief = "ribs"
	Dots   Relief = "dots"
	Weave  Relief = "weave"
	InPart Relief = "part"
)

// Pressed is a pattern pressed into a sheet without ink.
type Pressed struct {
	Relief Relief  `json:"relief" enum:"ribs,dots,weave,part"`
	Pitch  float64 `json:"pitch,omitempty" minimum:"0" maximum:"50" doc:"from rib to rib or dot to dot, mm; 0 takes 4"`
	Set    string  `json:"set,omitempty" doc:"of a part: its set"`
	Part   string  `json:"part,omitempty"`
	Spot
}

// Edged is ink along the edges of a sheet, behind low-tack tape: a border without a mat.
type Edged struct {
	Ink string  `json:"ink" doc:"ink id"`
	W   float64 `json:"w" minimum:"0.3" maximum:"60" doc:"of the border, mm"`
}

// Glazed is a sort of clear coat.
type Glazed string

// Sorts of clear coats.
const (
	Gloss   Glazed = "glaze"
	Shimmer Glazed = "shimmer spray"
	Fixed   Glazed = "fixative"
)

// Glaze is a clear coat over the whole sheet, or over a round place of it. It stays wet
// for long.
type Glaze struct {
	Kind  Glazed  `json:"kind" enum:"glaze,shimmer spray,fixative"`
	Reach float64 `json:"reach,omitempty" minimum:"0" maximum:"400" doc:"within so far of the spot; 0: all over, mm"`
	// Minutes are the product's own until it is dry.
	Minutes float64 `json:"minutes,omitempty" minimum:"0" maximum:"2880" doc:"until it is dry, by its label; 0 takes what is usual"`
	Spot
}

func (k *checker) treatment(c Card, at string, e Element, t Treatment) {
	one, name, many := t.one()
	k.bad(many, at, "is two treatments at once")
	if one == nil {
		return
	}
	if i := slices.Index([]byte(name), ','); i > 0 {
		name = name[:i]
	}
	one.check(k, c, e, at+"."+name)
}

func (k *checker) spot(at string, s Spot) {
	k.bad(!sane(s.X, -400, 400) || !sane(s.Y, -400, 400) || !sane(s.Turn, -360, 360), at+".x", outOfReach+"sheet")
}

func (w *Words) check(k *checker, _ Card, _ Element, at string) {
	k.bad(!sane(w.Letter, 0.5, 100), at+".letter", "letters are 0.5 to 100 mm high")
	k.bad(!sane(w.Bend, -1000, 1000), at+".bend", "words stand on an arc of at most 1000 mm")
	k.spot(at, w.Spot)
}

func (p *Turned) check(k *checker, c Card, e Element, at string) {
	k.names(c, at, p.Motif, p.Colourways...)
	k.bad(len(p.Colourways) == 0, at+".colourways", "name a colourway for the strikes")
	k.bad(p.Turns < 2 || p.Turns > 16, at+".turns", "a pattern has 2 to 16 strikes")
	k.bad(p.Start < 1 || p.Start > 4, at+".start", "the sheet has corners 1 to 4")
	k.bad(e.Inset == nil && (!sane(e.Sheet.W, 20, 300) || !sane(e.Sheet.H, 20, 300)), at, "a sheet that is turned is 20 to 300 mm each way")
	k.bad(!sane(p.X, -300, 300) || !sane(p.Y, -300, 300) || !sane(p.Turn, -360, 360), at+".x", outOfReach+"sheet")
}

func (p *Print) check(k *checker, c Card, _ Element, at string) {
	k.names(c, at, p.Motif, p.Colourways...)
	k.bad(len(p.Colourways) == 0, at+".colourways", "name a colourway")
	k.spot(at, p.Spot)
	if r := p.Rows; r != nil {
		k.bad(!sane(r.Across, 2, 400) || !sane(r.Down, 2, 400), at+".rows.across", "rows are 2 to 400 mm apart")
		k.bad(!sane(r.Shift, 0, 1) || !sane(r.Turn, -360, 360), at+".rows.shift", "rows are shifted by a share from 0 to 1, and turned by degrees")
	}
}

func (f *Fade) check(k *checker, _ Card, _ Element, at string) {
	k.bad(!slices.Contains(Froms, f.From), at+".from", fmt.Sprintf("%q is no place to begin; take %v", f.From, Froms))
	k.bad(len(f.Inks) < 1 || len(f.Inks) > 8, at+".inks", "a fade takes 1 to 8 inks")
	k.bad(!sane(f.Reach, 1, 600), at+".reach", "a fade reaches 1 to 600 mm")
	k.bad(f.From == FromImage && f.Round == "", at+".round", "name the image it goes round")
	k.bad(f.Strikes < 0 || f.Strikes > 6, at+".strikes", "it is gone over 1 to 6 times")
	k.bad(f.Tones < 0 || f.Tones > 6, at+".tones", "one to six tones are wanted of it")
	k.spot(at, f.Spot)
}

func (b *Bands) check(k *checker, _ Card, _ Element, at string) {
	k.bad(len(b.Bands) < 1 || len(b.Bands) > 30, at+".bands", "1 to 30 bands")
	k.bad(!sane(b.Gap, 0, 100) || !sane(b.Start, -400, 400), at+".gap", "gaps are 0 to 100 mm")
	for i, x := range b.Bands {
		k.bad(!sane(x.W, 0.5, 400), fmt.Sprintf("%s.bands[%d].w", at, i), "a band is 0.5 to 400 mm wide")
	}
}

func (s *Stencil) check(k *checker, _ Card, _ Element, at string) {
	k.bad(s.Set == "" || s.Part == "", at+".part", "name the stencil and its part")
	k.bad(len(s.Shifts) > 40, at+".shifts", "at most 40 further places")
	k.bad(!sane(s.Minutes, 0, 2880), at+".minutes", "paste dries within two days")
	k.spot(at, s.Spot)
	for i, x := range s.Shifts {
		k.bad(!sane(x.X, -400, 400) || !sane(x.Y, -400, 400), fmt.Sprintf("%s.shifts[%d]", at, i), outOfReach+"sheet")
	}
}

func (s *Splash) check(k *checker, _ Card, _ Element, at string) {
	k.bad(s.Drops < 1 || s.Drops > 200, at+".drops", "1 to 200 drops")
	k.bad(!sane(s.Size, 0.2, 20), at+".size", "drops are 0.2 to 20 mm across")
	k.bad(!sane(s.Dwell, 0, 600) || !sane(s.Reach, 0, 400), at+".dwell", "water lies up to 600 seconds, within 400 mm")
	k.spot(at, s.Spot)
}

func (s *Stroke) check(k *checker, _ Card, _ Element, at string) {
	k.bad(!sane(s.W, 0.2, 100), at+".w", "a stroke is 0.2 to 100 mm wide")
	k.bad(len(s.Points) < 2 || len(s.Points) > 60, at+".points", "a stroke goes through 2 to 60 points")
	for i, p := range s.Points {
		k.bad(!sane(p.X, -400, 400) || !sane(p.Y, -400, 400), fmt.Sprintf("%s.points[%d]", at, i), outOfReach+"sheet")
	}
}

func (p *Pressed) check(k *checker, _ Card, _ Element, at string) {
	k.bad(!slices.Contains([]Relief{Ribs, Dots, Weave, InPart}, p.Relief), at+".relief", fmt.Sprintf("%q is no relief", p.Relief))
	k.bad(!sane(p.Pitch, 0, 50) || p.Pitch > 0 && p.Pitch < 1, at+".pitch", "ribs and dots stand 1 to 50 mm apart")
	k.bad(p.Relief == InPart && (p.Set == "" || p.Part == ""), at+".part", "name the die part it is pressed with")
	k.spot(at, p.Spot)
}

func (x *Edged) check(k *checker, _ Card, _ Element, at string) {
	k.bad(!sane(x.W, 0.3, 60), at+".w", "a border is 0.3 to 60 mm wide")
}

func (g *Glaze) check(k *checker, _ Card, _ Element, at string) {
	k.bad(!slices.Contains([]Glazed{Gloss, Shimmer, Fixed}, g.Kind), at+".kind", fmt.Sprintf("%q is no clear coat", g.Kind))
	k.bad(!sane(g.Reach, 0, 400), at+".reach", "it reaches up to 400 mm")
	k.bad(!sane(g.Minutes, 0, 2880), at+".minutes", "it dries within two days")
	k.spot(at, g.Spot)
}

// Inks are those it lays on its sheet; of images their own colourways say.
func (t Treatment) Inks() []string {
	switch {
	case t.Words != nil:
		if t.Words.Shade != "" {
			return []string{t.Words.Ink, t.Words.Shade}
		}
		return []string{t.Words.Ink}
	case t.Fade != nil:
		return t.Fade.Inks
	case t.Bands != nil:
		var out []string
		for _, b := range t.Bands.Bands {
			out = append(out, b.Ink)
		}
		return out
	case t.Stencil != nil:
		return []string{t.Stencil.Ink}
	case t.Splash != nil:
		return []string{t.Splash.Ink}
	case t.Stroke != nil:
		return []string{t.Stroke.Ink}
	case t.Edged != nil:
		return []string{t.Edged.Ink}
	}
	return nil
}

// Motif is the image it prints; empty for none.
func (t Treatment) Motif() string {
	switch {
	case t.Print != nil:
		return t.Print.Motif
	case t.Turned != nil:
		return t.Turned.Motif
	}
	return ""
}
