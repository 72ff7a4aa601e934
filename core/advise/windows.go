package advise

import (
	"ochrestone/core/build"
	"ochrestone/core/card"
	"ochrestone/core/measure"
	"ochrestone/core/shape"
)

// Seen is what of a thing stays when it is looked at through a window.
type Seen struct {
	Name  string  `json:"name"`
	Share float64 `json:"share" doc:"of it that lies in the window, 0 to 1"`
	Left  float64 `json:"left" doc:"how far it goes on beyond the left of the window, mm"`
	Right float64 `json:"right" doc:"mm"`
	Top   float64 `json:"top" doc:"mm"`
	Foot  float64 `json:"foot" doc:"mm"`
}

// Crop is how a scene is cut to lie behind a window, with card all round to glue it by.
type Crop struct {
	Name string  `json:"name" doc:"the sheet that is cropped"`
	W    float64 `json:"w" doc:"mm"`
	H    float64 `json:"h" doc:"mm"`
	Left float64 `json:"left" doc:"cut off at its left, mm"`
	Top  float64 `json:"top" doc:"cut off at its top, mm"`
}

// cropMargin is how much card a scene keeps behind the frame of its window to be glued by;
// our own default.
const cropMargin = measure.Inch / 4

// cropWorth is how much there must be to cut off at a side for a crop to be named, mm.
const cropWorth = 0.5

// meetsBy is the least area, mm², in a window that counts as lying behind it.
const meetsBy = 1.0

// throughWindow is what is seen through an opening of a thing: images, letters and prints
// that lie beneath it, and how the sheet they are on would be cropped to it.
func throughWindow(b *build.Build, at int, window shape.Region) (seen []Seen, crop *Crop) {
	seen = []Seen{}
	box := window.Bounds()
	look := func(name string, g shape.Region) {
		if !g.Bounds().Meets(box) {
			return
		}
		in, err := g.Intersect(window)
		if err != nil || in.Area() < meetsBy {
			return
		}
		w := g.Bounds()
		seen = append(seen, Seen{Name: name, Share: in.Area() / max(g.Area(), 1e-9),
			Left: max(0, box.Min.X-w.Min.X), Right: max(0, w.Max.X-box.Max.X), Top: max(0, box.Min.Y-w.Min.Y), Foot: max(0, w.Max.Y-box.Max.Y)})
	}
	for i, t := range b.Things {
		if i >= at || t.Element.Face != card.Front || t.Outline.Empty() {
			continue
		}
		if t.Element.Image != nil || t.Element.Letters != nil {
			look(t.Name, t.Outline)
		}
		if t.Element.Sheet == nil {
			continue
		}
		for n, tr := range t.Element.Sheet.Treatments {
			if tr.Print == nil && tr.Turned == nil && tr.Words == nil || n >= len(t.Treated) {
				continue
			}
			if all, err := shape.UnionAll(t.Treated[n].Regions...); err == nil && !all.Empty() {
				look("What is printed on "+t.Name, t.Place(all))
			}
		}
		if w := t.Outline.Bounds(); t.Leaf == nil && t.Outline.Covers(window) {
			left, top := max(0, box.Min.X-cropMargin-w.Min.X), max(0, box.Min.Y-cropMargin-w.Min.Y)
			right, foot := max(0, w.Max.X-box.Max.X-cropMargin), max(0, w.Max.Y-box.Max.Y-cropMargin)
			crop = nil
			if max(left, right, top, foot) > cropWorth {
				crop = &Crop{Name: t.Name, W: w.W() - left - right, H: w.H() - top - foot, Left: left, Top: top}
			}
		}
	}
	return seen, crop
}
