package server

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/layout"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/plan"
	"ochrestone/core/shape"
	"ochrestone/exchange/sheet"
)

// templates serves the sheets to print for placing.
func (s *Server) templates(r *gin.Engine) {
	r.GET("/api/words.pdf", s.pdf("window-template", s.writeWords))
	r.GET("/api/cards/:id/corner.pdf", s.pdf("corner-jig", s.writeCorner))
	r.GET("/api/cards/:id/die-guide.pdf", s.pdf("die-guide", s.writeDieGuide))
	r.GET("/api/cards/:id/masks.pdf", s.pdf("masks", s.writeMasks))
	r.GET("/api/cards/:id/layout.pdf", s.pdf("layout", s.writeLayout))
	r.GET("/api/cards/:id/placement.pdf", s.pdf("placement-template", s.writePlacement))
	r.GET("/api/cards/:id/pads.pdf", s.pdf("pad-plan", s.writePads))
	r.GET("/api/cards/:id/cut.svg", s.drawing("cut-lines", sheet.CutLines))
	r.GET("/api/cards/:id/pads.svg", s.drawing("pad-plan", func(w io.Writer, pl plan.Plan) error {
		return sheet.PadLines(w, pl, s.planner.Standing(pl), false)
	}))
	r.GET("/api/cards/:id/pads-mirrored.svg", s.drawing("pad-plan-mirrored", func(w io.Writer, pl plan.Plan) error {
		return sheet.PadLines(w, pl, s.planner.Standing(pl), true)
	}))
}

// planOf plans the card of a request.
func (s *Server) planOf(c *gin.Context) (plan.Plan, error) {
	ctx := c.Request.Context()
	v, k, err := s.cardAndKit(ctx, c.Param("id"))
	if err != nil {
		return plan.Plan{}, err
	}
	return s.planner.Of(v.Card, k, s.assume(ctx)...), nil
}

func (s *Server) writeLayout(c *gin.Context, w io.Writer, opts []sheet.Option) error {
	pl, err := s.planOf(c)
	if err != nil {
		return err
	}
	return sheet.WriteLayout(w, pl, opts...)
}

// clearance is how much larger the windows of a placement template are all round, mm: our
// own default.
const clearance = 0.4

func (s *Server) writePlacement(c *gin.Context, w io.Writer, opts []sheet.Option) error {
	pl, err := s.planOf(c)
	if err != nil {
		return err
	}
	return sheet.WritePlacement(w, pl, clearance, c.Query("mirrored") != "", opts...)
}

func (s *Server) writePads(c *gin.Context, w io.Writer, opts []sheet.Option) error {
	pl, err := s.planOf(c)
	if err != nil {
		return err
	}
	return sheet.WritePads(w, pl, s.planner.Standing(pl, s.assume(c.Request.Context())...), c.Query("mirrored") != "", opts...)
}

// drawing answers with an SVG of a card.
func (s *Server) drawing(name string, write func(io.Writer, plan.Plan) error) gin.HandlerFunc {
	return func(c *gin.Context) {
		var b bytes.Buffer
		pl, err := s.planOf(c)
		if err == nil {
			err = write(&b, pl)
		}
		if err != nil {
			refuse(c, err)
			return
		}
		c.Header("Content-Disposition", fmt.Sprintf(`attachment; filename="%s.svg"`, name))
		c.Data(http.StatusOK, "image/svg+xml", b.Bytes())
	}
}

// pdf answers with what write makes, or with why it could not.
func (s *Server) pdf(name string, write func(*gin.Context, io.Writer, []sheet.Option) error) gin.HandlerFunc {
	return func(c *gin.Context) {
		ctx := c.Request.Context()
		f, _ := s.writing(ctx)
		var b bytes.Buffer
		if err := write(c, &b, []sheet.Option{sheet.Page(s.sheetSize(ctx)), sheet.Writing(f)}); err != nil {
			if errors.Is(err, layout.ErrNoLetters) {
				err = &sheet.ErrJig{What: "There is no die for any of these letters.", Mend: "Type letters or figures, or choose another alphabet."}
			}
			refuse(c, err)
			return
		}
		c.Header("Content-Disposition", fmt.Sprintf(`inline; filename="%s.pdf"`, name))
		c.Data(http.StatusOK, "application/pdf", b.Bytes())
	}
}

// number reads a number of the query; ok is false when it is none.
func number(c *gin.Context, name string, or float64) (float64, error) {
	text := c.Query(name)
	if text == "" {
		return or, nil
	}
	v, err := strconv.ParseFloat(text, 64)
	if err != nil || v != v || v > 1e4 || v < -1e4 {
		return 0, kit.Problem{Path: name, What: "give a number"}
	}
	return v, nil
}

// numbers reads several, each with its default.
func numbers(c *gin.Context, into map[string]*float64) error {
	for name, v := range into {
		n, err := number(c, name, *v)
		if err != nil {
			return err
		}
		*v = n
	}
	return nil
}

// imageOf finds the image of the query on the card, with its set.
func (s *Server) imageOf(c *gin.Context) (card.Card, kit.Kit, card.Motif, kit.Set, error) {
	v, k, err := s.cardAndKit(c.Request.Context(), c.Param("id"))
	if err != nil {
		return v.Card, k, card.Motif{}, kit.Set{}, err
	}
	m, ok := v.Card.Motif(c.Query("motif"))
	if !ok {
		return v.Card, k, m, kit.Set{}, kit.Problem{Path: "motif", What: "names an image that is not on this card"}
	}
	for _, set := range k.Sets {
		if set.ID == m.Set {
			return v.Card, k, m, set, nil
		}
	}
	return v.Card, k, m, kit.Set{}, kit.Problem{Path: "motif", What: "its set is not in the stores"}
}

func (s *Server) writeCorner(c *gin.Context, w io.Writer, opts []sheet.Option) error {
	_, _, m, set, err := s.imageOf(c)
	if err != nil {
		return err
	}
	size, x, y := [2]float64{101.6, 133.35}, 0.0, 0.0
	if err := numbers(c, map[string]*float64{"w": &size[0], "h": &size[1]}); err != nil {
		return err
	}
	x, y = size[0]/2, size[1]/2
	if err := numbers(c, map[string]*float64{"x": &x, "y": &y}); err != nil {
		return err
	}
	var gs []shape.Region
	for _, l := range m.Layers {
		if p, ok := set.Part(l.Part); ok {
			gs = append(gs, p.Outline)
		}
	}
	all, err := shape.UnionAll(gs...)
	if err != nil {
		return fmt.Errorf("gather the image: %w", err)
	}
	return sheet.WriteCorner(w, sheet.Corner{Paper: measure.Size{W: size[0], H: size[1]}, Image: all, X: x, Y: y, Name: m.Name}, opts...)
}

// writeDieGuide takes the largest cut layer of the image that carries prints.
func (s *Server) writeDieGuide(c *gin.Context, w io.Writer, opts []sheet.Option) error {
	crd, k, m, _, err := s.imageOf(c)
	if err != nil {
		return err
	}
	d := sheet.DieGuide{Name: m.Name}
	study, err := s.planner.Placing(crd, k, m.ID, s.assume(c.Request.Context())...)
	if err != nil {
		return err
	}
	views := study.Image.Shapes.Views
	if die, prints := placing.DieRoundPrints(study.Image.Shapes); die >= 0 {
		d.Die = views[die].Outline.Filled()
		for _, j := range prints {
			d.Layers, d.Labels = append(d.Layers, views[j].Outline), append(d.Labels, views[j].Layer.Label)
		}
	}
	return sheet.WriteDieGuide(w, d, opts...)
}

// mostWords is the longest text of a template.
const mostWords = 40

func (s *Server) writeWords(c *gin.Context, w io.Writer, opts []sheet.Option) error {
	text := strings.TrimSpace(c.Query("text"))
	if utf8.RuneCountInString(text) > mostWords {
		return kit.Problem{Path: "text", What: fmt.Sprintf("at most %d letters to a template", mostWords)}
	}
	height, gap, bounce, clear := 20.0, 1.5, 0.0, 0.3
	if err := numbers(c, map[string]*float64{"height": &height, "gap": &gap, "bounce": &bounce, "clear": &clear}); err != nil {
		return err
	}
	if height < 4 || height > 120 || gap < 0 || gap > 40 || bounce < 0 || bounce > 40 || clear < 0 || clear > 3 {
		return kit.Problem{Path: "height", What: "letters are 4 to 120 mm high, gaps and bounce up to 40 mm, the windows up to 3 mm larger"}
	}
	letter, err := s.alphabet(c, height)
	if err != nil {
		return err
	}
	line, err := layout.SetLine(text, letter, layout.Setting{Gap: gap, Space: height * 0.35, Bounce: bounce})
	if err != nil {
		return err
	}
	if len(line.Missing) > 0 {
		return &sheet.ErrJig{What: "There is no die for " + strings.Join(line.Missing, ", ") + ".", Mend: "Leave it out, or choose another alphabet."}
	}
	return sheet.WriteWords(w, text, line, clear, opts...)
}

// alphabet gives letters from a set whose parts are labelled with single letters,
// or plain ones of the height wanted.
func (s *Server) alphabet(c *gin.Context, height float64) (func(rune) (shape.Region, bool), error) {
	id := c.Query("set")
	if id == "" {
		return func(r rune) (shape.Region, bool) {
			g, _, err := sheet.Letters(string(r), height)
			return g, err == nil
		}, nil
	}
	k, err := s.store.Kit(c.Request.Context())
	if err != nil {
		return nil, err
	}
	for _, set := range k.Sets {
		if set.ID != id {
			continue
		}
		return set.Letter, nil
	}
	return nil, kit.Problem{Path: "set", What: "is not in the stores"}
}

func (s *Server) writeMasks(c *gin.Context, w io.Writer, opts []sheet.Option) error {
	ctx := c.Request.Context()
	v, k, err := s.cardAndKit(ctx, c.Param("id"))
	if err != nil {
		return err
	}
	inset := 0.4
	if err := numbers(c, map[string]*float64{"inset": &inset}); err != nil {
		return err
	}
	if inset < 0 || inset > 5 {
		return kit.Problem{Path: "inset", What: "a mask is inset by 0 to 5 mm"}
	}
	b := s.planner.Build(v.Card, k, s.assume(ctx)...)
	masks, err := b.Masks(inset)
	if err != nil {
		return err
	}
	out := make([]sheet.Mask, len(masks))
	for i, m := range masks {
		out[i] = sheet.Mask{Label: m.Label, Region: m.Region, Over: m.Over}
	}
	return sheet.WriteMasks(w, out, inset, opts...)
}
