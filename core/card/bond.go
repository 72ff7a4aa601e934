package card

import (
	"fmt"
	"slices"

	"ochrestone/core/kit"
)

// BondZone is where on the back of a part a bond lies.
type BondZone string

// Zones of a bond.
const (
	BondAllOver BondZone = "all over"
	BondEdge    BondZone = "edge"
	BondMiddle  BondZone = "middle"
	BondFoot    BondZone = "foot"
	BondHead    BondZone = "head"
	BondLeft    BondZone = "left"
	BondRight   BondZone = "right"
	BondSpots   BondZone = "spots"
	BondOpaque  BondZone = "behind opaque"
)

// BondZones lists them.
var BondZones = []BondZone{BondAllOver, BondEdge, BondMiddle, BondFoot, BondHead, BondLeft, BondRight, BondSpots, BondOpaque}

// Limits of bonds.
const (
	MaxLevel = 6  // spacers on each other
	MaxPlies = 12 // leaves of a shim
	MaxPads  = 60 // of one bond
)

// Bond holds a part, or a zone of it, to what is beneath: by spacers on each other, or
// where none is named by an adhesive.
type Bond struct {
	Adhesive string   `json:"adhesive,omitempty" doc:"adhesive id; empty: some glue"`
	Spacer   string   `json:"spacer,omitempty" doc:"spacer id"`
	Level    int      `json:"level,omitempty" minimum:"0" maximum:"6" doc:"how many spacers on each other; 0 counts as 1"`
	Shims    []Shim   `json:"shims,omitempty" maxItems:"4" doc:"what else stands beneath it to make up the height"`
	Zone     BondZone `json:"zone,omitempty" enum:"all over,edge,middle,foot,head,left,right,spots,behind opaque" doc:"where on the back of the part; none: all over"`
	Inset    float64  `json:"inset,omitempty" minimum:"0" maximum:"60" doc:"back from the edge of the part, mm; 0 takes a usual one"`
	Open     []Side   `json:"open,omitempty" maxItems:"4" doc:"sides left open for what slips in beneath, of the part as it lies unturned"`
	Pocket   float64  `json:"pocket,omitempty" minimum:"0" maximum:"200" doc:"how deep the open sides stay free, mm; 0 takes a usual depth"`
	Pads     []Pad    `json:"pads,omitempty" maxItems:"60" doc:"pads where the person put them; none: as proposed"`

	extra extra
}

// Shim is something that stands beneath a spacer, or instead of one, to make up a height:
// other spacers, or leaves of cardstock.
type Shim struct {
	Spacer string `json:"spacer,omitempty" doc:"spacer id"`
	Paper  string `json:"paper,omitempty" doc:"cardstock id, of scraps; instead of a spacer"`
	N      int    `json:"n" minimum:"1" maximum:"12"`
}

// Pad is one pad of a bond, on the back of its part.
type Pad struct {
	X    float64 `json:"x" minimum:"-400" maximum:"400" doc:"its middle to the right of the part's as it lies unturned, seen from the front, mm"`
	Y    float64 `json:"y" minimum:"-400" maximum:"400" doc:"down, mm"`
	W    float64 `json:"w" minimum:"0.5" maximum:"300" doc:"mm"`
	H    float64 `json:"h" minimum:"0.5" maximum:"300" doc:"mm"`
	Turn float64 `json:"turn,omitempty" minimum:"-360" maximum:"360" doc:"clockwise, degrees"`
}

// Raised reports whether spacers or shims hold the part.
func (b Bond) Raised() bool { return b.Spacer != "" || len(b.Shims) > 0 }

// Levels is how many spacers of its own sort the bond has on each other.
func (b Bond) Levels() int {
	if b.Spacer == "" {
		return 0
	}
	return max(1, b.Level)
}

// Raised reports whether any of the bonds holds its part up.
func Raised(bonds []Bond) bool { return slices.ContainsFunc(bonds, Bond.Raised) }

// Glue holds a part by an adhesive.
func Glue(adhesive string) []Bond { return []Bond{{Adhesive: adhesive}} }

// Foam holds a part on so many spacers, one on the other.
func Foam(spacer string, level int) []Bond { return []Bond{{Spacer: spacer, Level: level}} }

// LevelWith says that the top of an element is to be level with that of another; none: it
// need not be.
type LevelWith struct {
	Element string `json:"element"`
	With    string `json:"with,omitempty"`
}

func (e *LevelWith) apply(c *Card, _ kit.Kit) error {
	el, err := c.element(e.Element)
	if err != nil {
		return err
	}
	el.Level = e.With
	return nil
}

// bonds checks what holds a part.
func (k *checker) bonds(at string, bonds []Bond) {
	k.bad(len(bonds) > 6, at+".bonds", "at most six bonds hold a part")
	for i, b := range bonds {
		in := fmt.Sprintf("%s.bonds[%d]", at, i)
		k.bad(b.Level < 0 || b.Level > MaxLevel, in+".level", fmt.Sprintf("%d spacers on each other: take 1 to %d", b.Level, MaxLevel))
		k.bad(b.Zone != "" && !slices.Contains(BondZones, b.Zone), in+".zone", fmt.Sprintf("%q is not a zone of a bond; take %v", b.Zone, BondZones))
		k.bad(!sane(b.Inset, 0, 60), in+".inset", "a bond stands 0 to 60 mm back from the edge")
		k.bad(!sane(b.Pocket, 0, 200), in+".pocket", "a pocket is 0 to 200 mm deep")
		for _, o := range b.Open {
			k.bad(!slices.Contains(Sides, o), in+".open", fmt.Sprintf("%q is not a side; take %v", o, Sides))
		}
		k.bad(len(b.Open) > 0 && len(b.Pads) > 0, in+".open", "a side is left open by where the pads stand: drop its pads, or the open sides")
		for j, s := range b.Shims {
			on := fmt.Sprintf("%s.shims[%d]", in, j)
			k.bad(s.N < 1 || s.N > MaxPlies, on+".n", fmt.Sprintf("take 1 to %d of them", MaxPlies))
			k.bad((s.Spacer == "") == (s.Paper == ""), on+".spacer", "a shim is a spacer or a cardstock, one of the two")
		}
		k.bad(len(b.Pads) > 0 && !b.Raised(), in+".pads", "glue has no pads: choose a spacer, or drop them")
		k.bad(len(b.Pads) > MaxPads, in+".pads", fmt.Sprintf("at most %d pads", MaxPads))
		for j, p := range b.Pads {
			on := fmt.Sprintf("%s.pads[%d]", in, j)
			k.bad(!sane(p.W, 0.5, 300) || !sane(p.H, 0.5, 300), on+".w", "a pad is 0.5 to 300 mm each way")
			k.bad(!sane(p.X, -400, 400) || !sane(p.Y, -400, 400) || !sane(p.Turn, -360, 360), on+".x", "the pad is out of reach of its part")
		}
	}
}
