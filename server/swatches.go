package server

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/look"
	"ochrestone/core/measure"
	"ochrestone/demo/sim"
	"ochrestone/exchange/sheet"
	"ochrestone/store"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/swatch"
)

// SwatchSheet is a printed sheet of cells: what goes where.
type SwatchSheet struct {
	Number int          `json:"number" doc:"printed on the sheet"`
	Paper  string       `json:"paper" doc:"cardstock id"`
	Name   string       `json:"name" doc:"of the paper"`
	Cells  []SwatchCell `json:"cells" nullable:"false"`
}

// SwatchCell is one cell of a sheet.
type SwatchCell struct {
	Ink         string `json:"ink" doc:"ink id"`
	Name        string `json:"name"`
	Impressions int    `json:"impressions" minimum:"1" maximum:"3"`
}

// CellRead is a cell as it was read.
type CellRead struct {
	SwatchCell
	Colour  string  `json:"colour" doc:"#rrggbb"`
	L       float64 `json:"l" doc:"lightness, CIE L*"`
	Known   string  `json:"known" doc:"what was known of it before, #rrggbb"`
	Apart   float64 `json:"apart" doc:"CIEDE2000 between the two"`
	Trouble string  `json:"trouble,omitempty" doc:"what is wrong with the cell"`
	Usable  bool    `json:"usable"`
	Sure    float64 `json:"sure" doc:"CIEDE2000 within which the colour lies, 95 of 100"`
	With    int     `json:"with" doc:"of two inks that look swapped: the other cell, from 0; -1 for none"`
}

// sheetKey names a sheet among the settings.
func sheetKey(n int) string { return fmt.Sprint(sheetPrefix, n) }

const sheetPrefix = "swatch-sheet:"

func (s *Server) swatches(r *gin.Engine) {
	huma.Register(s.api, op("drawer", http.MethodGet, "/api/drawer", "How well the colours of the drawer are known"), func(ctx context.Context, _ *struct{}) (*struct{ Body look.Knowledge }, error) {
		k, err := s.store.Kit(ctx)
		if err != nil {
			return nil, problem(err)
		}
		return &struct{ Body look.Knowledge }{look.KnowledgeOf(k)}, nil
	})
	huma.Register(s.api, op("new-swatch-sheet", http.MethodPost, "/api/swatches/sheets", "Lay out a swatch sheet to print"), s.newSheet)
	huma.Register(s.api, op("swatch-sheets", http.MethodGet, "/api/swatches/sheets", "Swatch sheets laid out so far"), func(ctx context.Context, _ *struct{}) (*struct{ Body []SwatchSheet }, error) {
		all, err := s.sheets(ctx)
		return &struct{ Body []SwatchSheet }{all}, problem(err)
	})
	read := op("read-swatch-sheet", http.MethodPost, "/api/swatches/sheets/{number}/read", "Read a filled swatch sheet")
	read.MaxBodyBytes = maxUpload
	huma.Register(s.api, read, s.readSheet)
	huma.Register(s.api, op("keep-swatches", http.MethodPost, "/api/swatches/sheets/{number}/keep", "Keep what was read"), s.keepSwatches)
	r.GET("/api/swatches/sheets/:number/sheet.pdf", s.sheetPDF)
	if s.demo {
		r.GET("/api/device-swatches/:number", s.filledSheet)
	}
}

type newSheetIn struct {
	Body struct {
		Paper   string   `json:"paper" doc:"cardstock id"`
		Inks    []string `json:"inks,omitempty" doc:"ink ids; none takes the whole drawer"`
		Strikes int      `json:"strikes,omitempty" minimum:"0" maximum:"3" doc:"cells per ink, for one impression and more; 0 counts as 1"`
	}
}

type sheetsOut struct{ Body []SwatchSheet }

// newSheet lays out as many sheets as the inks need.
func (s *Server) newSheet(ctx context.Context, in *newSheetIn) (*sheetsOut, error) {
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	paper, ok := k.Paper(in.Body.Paper)
	if !ok {
		return nil, problem(kit.Problem{Path: "paper", What: "choose a paper from the stores"})
	}
	if !swatch.Readable(paperOf(k, paper.ID)) {
		return nil, problem(kit.Problem{Path: "paper", What: fmt.Sprintf("%s is too dark: the printed marks by which a filled sheet is read do not show on it; choose a lighter card, and type what inks dry to on this one", paper.Name)})
	}
	var cells []SwatchCell
	for _, i := range k.Inks {
		if i.Kind == kit.Embossing || len(in.Body.Inks) > 0 && !slices.Contains(in.Body.Inks, i.ID) {
			continue
		}
		for n := range max(1, in.Body.Strikes) {
			cells = append(cells, SwatchCell{i.ID, i.Name, n + 1})
		}
	}
	if len(cells) == 0 {
		return nil, problem(kit.Problem{Path: "inks", What: "there are no inks to swatch; add some to the drawer first"})
	}
	out := &sheetsOut{Body: []SwatchSheet{}}
	per := swatch.For(mat.For(measure.Letter, false)).Cells()
	parts := slices.Collect(slices.Chunk(cells, per))
	err = s.store.AddNumbered(ctx, sheetPrefix, func(number int) (string, bool) {
		if len(out.Body) == len(parts) {
			return "", false
		}
		sh := SwatchSheet{Number: number, Paper: paper.ID, Name: paper.Name, Cells: parts[len(out.Body)]}
		doc, err := json.Marshal(sh)
		if err != nil {
			return "", false
		}
		out.Body = append(out.Body, sh)
		return string(doc), true
	})
	if err != nil {
		return nil, problem(err)
	}
	return out, nil
}

func (s *Server) sheets(ctx context.Context) ([]SwatchSheet, error) {
	out := []SwatchSheet{}
	for n := 1; ; n++ {
		sh, err := s.sheet(ctx, n)
		if err != nil || sh.Number == 0 {
			return out, err
		}
		out = append(out, sh)
	}
}

func (s *Server) sheet(ctx context.Context, n int) (sh SwatchSheet, err error) {
	doc, err := s.store.Setting(ctx, sheetKey(n), "")
	if err != nil || doc == "" {
		return sh, err
	}
	if err := json.Unmarshal([]byte(doc), &sh); err != nil {
		return sh, fmt.Errorf("read swatch sheet %d: %w", n, err)
	}
	return sh, nil
}

type readSheetIn struct {
	Number  int    `path:"number"`
	RawBody []byte `contentType:"application/octet-stream"`
}

type readSheetOut struct {
	Body struct {
		Cells []CellRead `json:"cells" nullable:"false"`
		Sure  string     `json:"sure" doc:"how well the page was seen"`
		Notes []string   `json:"notes" nullable:"false" doc:"what holds for the whole sheet"`
	}
}

func (s *Server) readSheet(ctx context.Context, in *readSheetIn) (*readSheetOut, error) {
	return heavy(ctx, &s.jobs, nil, func() (*readSheetOut, error) { return s.readSheetNow(ctx, in) })
}

func (s *Server) readSheetNow(ctx context.Context, in *readSheetIn) (*readSheetOut, error) {
	sh, err := s.sheet(ctx, in.Number)
	if err != nil || sh.Number == 0 {
		return nil, problem(store.ErrNotFound)
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	p, err := picture.Decode(in.RawBody)
	if err != nil {
		return nil, problem(err)
	}
	m, err := mat.Read(p)
	if err != nil {
		return nil, problem(err)
	}
	paper := paperOf(k, sh.Paper)
	known := make([]*colour.Linear, len(sh.Cells))
	for i, c := range sh.Cells {
		if ink, ok := k.Ink(c.Ink); ok {
			if f, _, err := ink.Film(paperOf(k, ink.Paper)); err == nil {
				v := f.Over(paper, c.Impressions)
				known[i] = &v
			}
		}
	}
	read, err := swatch.ReadSheet(p, m, len(sh.Cells), paper, known)
	if err != nil {
		return nil, problem(err)
	}
	if read.Number != 0 && read.Number != sh.Number {
		return nil, problem(&picture.Problem{What: fmt.Sprintf("The picture is of sheet %d, not of sheet %d.", read.Number, sh.Number), Mend: fmt.Sprintf("Choose sheet %d, or take a picture of sheet %d.", read.Number, sh.Number)})
	}
	w, _ := s.writing(ctx)
	out := &readSheetOut{}
	out.Body.Cells = []CellRead{}
	out.Body.Sure = fmt.Sprintf("%d of %d marks of the page seen, within %s.", m.Marks, m.Of, w.Thin(max(0.01, m.Off)))
	out.Body.Notes = append([]string{}, read.Notes...)
	for i, r := range read.Cells {
		c := CellRead{SwatchCell: sh.Cells[i], Colour: r.Colour.Hex(), L: r.Colour.Lab().L, Trouble: string(r.Trouble), Usable: r.Usable, Sure: r.Sure, With: -1}
		if r.Trouble == swatch.Swap {
			c.With = r.With
			c.Trouble = fmt.Sprintf("it looks like %s (cell %d), and that one like this: were the two swapped?", sh.Cells[r.With].Name, r.With+1)
		}
		if known[i] != nil {
			c.Known, c.Apart = known[i].Hex(), colour.Difference(known[i].Lab(), r.Colour.Lab())
		}
		out.Body.Cells = append(out.Body.Cells, c)
	}
	return out, nil
}

func paperOf(k kit.Kit, id string) colour.Linear {
	hex := kit.PlainWhite
	if p, ok := k.Paper(id); ok {
		hex = p.Colour
	}
	c, err := colour.ParseHex(hex)
	if err != nil {
		c, _ = colour.ParseHex(kit.PlainWhite)
	}
	return c
}

type keepSwatchesIn struct {
	Number int `path:"number"`
	Body   struct {
		Wet   bool `json:"wet,omitempty" doc:"it was read while wet"`
		Cells []struct {
			Ink         string `json:"ink"`
			Impressions int    `json:"impressions" minimum:"1" maximum:"3"`
			Colour      string `json:"colour" doc:"#rrggbb"`
		} `json:"cells" minItems:"1" maxItems:"200"`
	}
}

// keepSwatches fills the drawer: dried colours become swatches of their paper,
// and a single impression the ink's own colour; wet ones become its wet colour.
func (s *Server) keepSwatches(ctx context.Context, in *keepSwatchesIn) (*struct{ Body look.Knowledge }, error) {
	sh, err := s.sheet(ctx, in.Number)
	if err != nil || sh.Number == 0 {
		return nil, problem(store.ErrNotFound)
	}
	k, err := s.store.Kit(ctx)
	if err != nil {
		return nil, problem(err)
	}
	var items []store.Item
	for i, c := range in.Body.Cells {
		ink, ok := k.Ink(c.Ink)
		if _, err := colour.ParseHex(c.Colour); err != nil || !ok {
			return nil, problem(kit.Problem{Path: fmt.Sprintf("cells[%d]", i), What: "names an ink that is not in the drawer, or a colour that is none"})
		}
		first := c.Impressions == 1
		switch {
		case in.Body.Wet && first:
			ink.Wet = c.Colour
		case in.Body.Wet:
			continue
		case first:
			ink = ink.Seen(c.Colour, sh.Paper)
		}
		if first {
			items = append(items, store.Item{Kind: store.KindInk, ID: ink.ID, Value: ink})
		}
		if in.Body.Wet {
			continue
		}
		w := kit.Swatch{Ink: c.Ink, Paper: sh.Paper, Impressions: c.Impressions, Dry: c.Colour, On: s.now().Format(time.DateOnly)}
		items = append(items, store.Item{Kind: store.KindSwatch, ID: w.ID(), Value: w})
	}
	if err := s.store.PutAll(ctx, items...); err != nil {
		return nil, problem(err)
	}
	if k, err = s.store.Kit(ctx); err != nil {
		return nil, problem(err)
	}
	return &struct{ Body look.Knowledge }{look.KnowledgeOf(k)}, nil
}

// ask reads the sheet a plain request names.
func (s *Server) ask(c *gin.Context) (SwatchSheet, bool) {
	n, _ := strconv.Atoi(c.Param("number"))
	sh, err := s.sheet(c.Request.Context(), n)
	if err != nil || sh.Number == 0 {
		refuse(c, store.ErrNotFound)
		return sh, false
	}
	return sh, true
}

func (s *Server) sheetPDF(c *gin.Context) {
	sh, ok := s.ask(c)
	if !ok {
		return
	}
	labels := make([]string, len(sh.Cells))
	for i, cell := range sh.Cells {
		labels[i] = cell.Name
		if cell.Impressions > 1 {
			labels[i] += fmt.Sprintf(" × %d", cell.Impressions)
		}
	}
	page := measure.Letter
	if s.settings(c.Request.Context()).Unit == measure.Millimetres {
		page = measure.A4
	}
	var b bytes.Buffer
	if err := sheet.Swatches(&b, page, sh.Number, fmt.Sprintf("Swatch sheet %d, on %s", sh.Number, sh.Name), labels); err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Disposition", fmt.Sprintf(`inline; filename="swatch-sheet-%d.pdf"`, sh.Number))
	c.Data(http.StatusOK, "application/pdf", b.Bytes())
}

// filledSheet is a sheet as the simulated scanner sees it filled: with inks
// that are a little off what was typed, as real ones are.
func (s *Server) filledSheet(c *gin.Context) {
	sh, ok := s.ask(c)
	if !ok {
		return
	}
	k, err := s.store.Kit(c.Request.Context())
	if err != nil {
		refuse(c, err)
		return
	}
	paper := paperOf(k, sh.Paper)
	cells := make([]*colour.Linear, len(sh.Cells))
	for i, cell := range sh.Cells {
		ink, ok := k.Ink(cell.Ink)
		if !ok {
			continue
		}
		film, _, err := ink.Film(paperOf(k, ink.Paper))
		if err != nil {
			continue
		}
		if !ink.Measured {
			// By its name: an id is drawn at random, and so would be what comes off the pad.
			film = sim.Pad(film, strings.ReplaceAll(strings.ToLower(ink.Name), ", ", "-"))
		}
		v := film.Over(paper, cell.Impressions)
		if c.Query("state") == "wet" {
			v = kit.BehaviourOf(ink.Kind).Drying.Wet(v)
		}
		cells[i] = &v
	}
	g := sim.Plain()
	g.Shadow, g.Dust = 0, 1
	l := mat.For(measure.Letter, false)
	raw, err := sim.PNG(sim.Numbered(sim.Filled(l, paper, cells, uint64(sh.Number)), l, sh.Number).Scan(200, g, uint64(sh.Number)), 200)
	if err != nil {
		refuse(c, err)
		return
	}
	c.Data(http.StatusOK, "image/png", raw)
}
