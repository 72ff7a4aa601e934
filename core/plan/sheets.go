package plan

import (
	"ochrestone/core/cut"
	"ochrestone/core/placing"
)

// sheetsOf lays out what so many of the card take of one cardstock, each lot as it is made, just
// as the cut list does.
func (b *builder) sheetsOf(stock string, copies int) (cut.Stock, bool) {
	var jobs []cut.Job
	for _, l := range lotsOf([]Job{{"", b.card}}) {
		of := b
		if l.Lot != "" {
			of = b.like(l.made)
			of.motifs()
			of.colours()
			of.together()
		} else {
			l.Copies = copies
		}
		jobs = append(jobs, cut.Job{Build: &of.plan.Build, Copies: l.Copies, Spares: of.spares})
	}
	return cut.Needed(b.o.ctx, jobs, stock, cut.Write(b.o.write), cut.Remember(b.cuts))
}

// spares is how many pieces of a layer are cut so that as many as wanted come out.
func (b *builder) spares(motif, way, part string, want int) int {
	if b.spared == nil {
		b.spared = map[spare]int{}
	}
	of := spare{motif, way, part, want}
	if n, ok := b.spared[of]; ok {
		return n
	}
	n := want
	for _, m := range b.plan.Motifs {
		if m.ID != motif || m.Problem != "" {
			continue
		}
		study := placing.Study{Stock: b.kit, Image: m.img, Hand: b.o.hand, Memory: b.placing, Looks: m.Colourways}
		if found, err := study.Blanks(way, part, want, 1); err == nil {
			n = found
			break
		}
	}
	b.spared[of] = n
	return n
}

// spare is what so many pieces are wanted of.
type spare struct {
	motif, way, part string
	want             int
}
