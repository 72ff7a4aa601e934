package sheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"ochrestone/core/words"
	"ochrestone/core/work"
)

// block is something that stands in a column undivided: it says how high it is, mm, and
// draws itself with its top left corner at x, y.
type block struct {
	h    float64
	draw func(p *paper, x, y float64) error
	// Whether what follows must stand beneath it, as beneath a heading.
	holds bool
}

// steps lays the work out in two columns: groups as people work, each with its steps and
// with a picture of what is there when it is done. What was said once is not said again.
func (g *guide) steps() error {
	if len(g.plan.Steps) == 0 {
		return nil
	}
	wide := (g.size.W - 2*margin - gutter) / 2
	scratch, err := newPaper(g.size.W, g.size.H)
	if err != nil {
		return err
	}
	var blocks []block
	blocks = append(blocks, g.lots(scratch, wide)...)
	for i := 0; i < len(g.plan.Steps); {
		end := i
		for end < len(g.plan.Steps) && g.plan.Steps[end].Group == g.plan.Steps[i].Group {
			end++
		}
		blocks = append(blocks, headed(words.Capital(string(g.plan.Steps[i].Group))))
		for _, s := range g.plan.Steps[i:end] {
			blocks = append(blocks, g.step(scratch, wide, s))
		}
		if g.sitting == nil || len(g.sitting.Cards) == 1 {
			pic, err := g.state(end, wide)
			if err != nil {
				return err
			}
			if pic != nil {
				blocks = append(blocks, *pic)
			}
		}
		i = end
	}
	return g.columns(blocks, wide)
}

// lots says which cards a sitting makes, where they differ.
func (g *guide) lots(scratch *paper, wide float64) (out []block) {
	if g.sitting == nil || len(g.sitting.Cards) < 2 {
		return nil
	}
	out = append(out, headed("What is made"))
	for _, c := range g.sitting.Cards {
		lines := scratch.wrap(scratch.f.text, 3, wide-12, c.Name)
		n := c.Copies
		out = append(out, block{h: float64(len(lines))*3.9 + 1, draw: func(p *paper, x, y float64) error {
			p.text(p.f.bold, 3, x+8, y+3.2, 1, inkText, fmt.Sprint(n))
			for _, l := range lines {
				y += 3.9
				p.text(p.f.text, 3, x+12, y-0.7, -1, inkText, l)
			}
			return nil
		}})
	}
	return out
}

// boxEach is the room of one card's box on a run sheet, mm.
const boxEach = 4.2

func headed(name string) block {
	return block{h: 9, holds: true, draw: func(p *paper, x, y float64) error {
		p.text(p.f.head, 3.8, x, y+5, -1, inkText, name)
		return nil
	}}
}

// step is one step with its box to tick.
func (g *guide) step(scratch *paper, wide float64, s work.Act) block {
	const indent = 7.0
	w := wide - indent
	title := fmt.Sprintf("%d  %s", s.Number, s.Title)
	if s.Minutes > 0 {
		title += fmt.Sprintf(", then %.0f min", s.Minutes)
	}
	if n := slices.IndexFunc(g.plan.Steps, func(a work.Act) bool { return a.Key == s.Key }); n >= 0 && n < len(g.plan.Time.Slots) {
		if g.plan.Time.Slots[n].Wash {
			title += ", wash first"
		}
		if b := g.plan.Time.Slots[n].Batch; b > 0 {
			title += fmt.Sprintf(", %d at a time", b)
		}
	}
	if s.For != "" {
		title += ". For " + s.For
	}
	head := scratch.wrap(scratch.f.bold, 3, w, title)
	said := append([]string{s.Detail, s.Alike}, s.Mind...)
	said = append(said, s.Keep, s.Final)
	detail := scratch.wrap(scratch.f.text, 2.7, w, strings.TrimSpace(strings.Join(slices.DeleteFunc(said, func(s string) bool { return s == "" }), " ")))
	var care []string
	for _, c := range s.Cautions {
		care = append(care, scratch.wrap(scratch.f.bold, 2.5, w, "Care: "+c)...)
	}
	done := g.done[s.ID]
	// A box for every card of the sitting.
	cards, row := 0, int(w/boxEach)
	if n := g.plan.Time.Run.Copies; n > 1 {
		cards = n
	}
	if s.Cards > 0 {
		cards = s.Cards
		if cards == 1 {
			cards = 0 // its own box is enough
		}
	}
	rows := (cards + row - 1) / row
	h := float64(len(head))*3.9 + float64(len(detail))*3.5 + float64(len(care))*3.3 + float64(rows)*boxEach + 1.8
	return block{h: h, draw: func(p *paper, x, y float64) error {
		p.rect(x, y+0.2, 4, 4, none, inkText, 0.3)
		if done {
			p.line(x+0.7, y+2.2, x+1.7, y+3.6, 0.5, inkText)
			p.line(x+1.7, y+3.6, x+3.5, y+0.8, 0.5, inkText)
		}
		y += 3.2
		for _, l := range head {
			p.text(p.f.bold, 3, x+indent, y, -1, inkText, l)
			y += 3.9
		}
		for _, l := range detail {
			p.text(p.f.text, 2.7, x+indent, y, -1, inkText, l)
			y += 3.5
		}
		for _, l := range care {
			p.text(p.f.bold, 2.5, x+indent, y, -1, quiet, l)
			y += 3.3
		}
		for n := range cards {
			bx, by := x+indent+float64(n%row)*boxEach, y-2.4+float64(n/row)*boxEach
			p.rect(bx, by, boxEach-1, boxEach-1, none, inkText, 0.15)
			if done {
				p.line(bx+0.5, by+1.5, bx+1.2, by+2.4, 0.3, inkText)
				p.line(bx+1.2, by+2.4, bx+2.7, by+0.5, 0.3, inkText)
			}
		}
		return nil
	}}
}

// columns lays blocks down the columns of as few pages as hold them, all columns about
// equally long, so that no page is left with a few lines.
func (g *guide) columns(blocks []block, wide float64) error {
	most := g.size.H - foot - top
	n := count(blocks, most)
	if n > 1 {
		n += n % 2 // both columns of the last page
	}
	short, long := most/4, most
	for long-short > 0.5 {
		mid := (short + long) / 2
		if count(blocks, mid) <= n {
			long = mid
		} else {
			short = mid
		}
	}
	col, y := -1, math.Inf(1)
	for i, b := range blocks {
		if y+run(blocks, i) > top+long {
			col, y = col+1, top
			if col%2 == 0 {
				if err := g.page(); err != nil {
					return err
				}
			}
		}
		if err := b.draw(g.p, margin+float64(col%2)*(wide+gutter), y); err != nil {
			return err
		}
		y += b.h
	}
	g.y = g.size.H
	return nil
}

// run is the height of a block and of those that must stand beneath it, mm.
func run(blocks []block, i int) float64 {
	h := blocks[i].h
	for blocks[i].holds && i+1 < len(blocks) {
		i++
		h += blocks[i].h
	}
	return h
}

// count is how many columns of a height hold the blocks.
func count(blocks []block, high float64) int {
	n, y := 0, math.Inf(1)
	for i, b := range blocks {
		if y+run(blocks, i) > high {
			n, y = n+1, 0
		}
		y += b.h
	}
	return n
}
