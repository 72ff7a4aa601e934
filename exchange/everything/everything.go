// Package everything writes all a person has as one zip of open formats: cards as
// JSON with their fronts and recipes, sets as drawings, the stores and the log as
// tables.
package everything

import (
	"archive/zip"
	"encoding/json"
	"fmt"
	"io"
	"strconv"
	"time"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/exchange/inkfile"
	"ochrestone/exchange/setsvg"
	"ochrestone/exchange/sheet"
	"ochrestone/exchange/shelf"
	"ochrestone/exchange/table"
)

// All is what there is to write.
type All struct {
	Cards    []Named
	Kit      kit.Kit
	Settings map[string]string
	Log      [][]string // placements, with a heading
	More     []File     // whatever else
	Apart    []Raw      // what cannot be read, as it stands
	At       time.Time  // of the files in the zip
}

// Named is a card with its id.
type Named struct {
	ID   string
	Card card.Card
	Run  inkfile.Used // inks used instead of those planned
}

// File is a file of its own in the zip: a document written as JSON, or bytes as they are.
type File struct {
	Dir, Name, Ext string // such as log/, Owl, .jpg
	Doc            any
	// Read gives what is in it where it is no document, when it is written and not before.
	Read func() ([]byte, error)
}

// Raw is a stored document nobody can read.
type Raw struct {
	Kind, ID string
	Doc      []byte
}

const readMe = `Everything kept in Ochrestone, in open formats.

cards/     each card as it is (JSON, lengths in mm), its front (SVG) and its inks (CSV)
sets/      each set as a drawing in mm (SVG), and as it is (JSON)
stores/    inks, papers, spacers, adhesives, envelopes, machines, swatches (CSV, UTF-8),
           and all of them with everything known of them (stores.json)
log/       what was made: runs with their steps, inks and notes, placements, and how the
           cards lie on the bench (JSON), photographs (JPEG)
log.csv    placements measured and practised, as a table
settings.json
apart/     what could not be read, as it stands

Earlier states of the cards, to which undo goes back, are not in it: a backup has them.
A whole data file for Ochrestone itself is made by: ochrestone backup FILE
`

// Write writes the zip. plan gives the plan of a card.
func Write(w io.Writer, a All, plan func(card.Card) plan.Plan) error {
	z := zip.NewWriter(w)
	names := map[string]int{}
	file := func(dir, name, ext string, write func(io.Writer) error) error {
		path := dir + FileName(name)
		names[path+ext]++
		if n := names[path+ext]; n > 1 {
			path += "-" + strconv.Itoa(n)
		}
		f, err := z.CreateHeader(&zip.FileHeader{Name: path + ext, Method: zip.Deflate, Modified: a.At})
		if err == nil {
			err = write(f)
		}
		if err != nil {
			return fmt.Errorf("write %s: %w", path+ext, err)
		}
		return nil
	}
	doc := func(v any) func(io.Writer) error {
		return func(w io.Writer) error {
			e := json.NewEncoder(w)
			e.SetIndent("", "  ")
			return e.Encode(v)
		}
	}
	rows := func(r [][]string) func(io.Writer) error {
		return func(w io.Writer) error { return table.Write(w, r) }
	}
	if err := file("", "READ-ME", ".txt", func(w io.Writer) error { _, err := io.WriteString(w, readMe); return err }); err != nil {
		return err
	}
	for _, c := range a.Cards {
		p := plan(c.Card)
		for ext, write := range map[string]func(io.Writer) error{
			".json":     doc(c.Card),
			".svg":      func(w io.Writer) error { return sheet.FrontSVG(w, c.Card, a.Kit, p) },
			"-inks.csv": func(w io.Writer) error { return inkfile.WriteRecipe(w, inkfile.Recipes(c.Card, a.Kit, p, c.Run)) },
		} {
			if err := file("cards/", c.Card.Title, ext, write); err != nil {
				return err
			}
		}
	}
	for _, s := range a.Kit.Sets {
		if err := file("sets/", s.Name, ".svg", func(w io.Writer) error { return setsvg.Write(w, s) }); err != nil {
			return err
		}
		if err := file("sets/", s.Name, ".json", doc(s)); err != nil {
			return err
		}
	}
	if err := file("stores/", "inks", ".csv", func(w io.Writer) error { return inkfile.WriteCSV(w, a.Kit.Inks) }); err != nil {
		return err
	}
	for _, kind := range shelf.Kinds() {
		t, _ := shelf.Of(kind)
		if err := file("stores/", kind, ".csv", func(w io.Writer) error { return t.Write(w, a.Kit) }); err != nil {
			return err
		}
	}
	if err := file("stores/", "swatches", ".csv", rows(swatches(a.Kit))); err != nil {
		return err
	}
	if err := file("stores/", "stores", ".json", doc(bare(a.Kit))); err != nil {
		return err
	}
	for _, f := range a.More {
		write := doc(f.Doc)
		if f.Doc == nil {
			write = func(w io.Writer) error {
				data, err := f.Read()
				if err == nil {
					_, err = w.Write(data)
				}
				return err
			}
		}
		if err := file(f.Dir, f.Name, f.Ext, write); err != nil {
			return err
		}
	}
	if err := file("", "log", ".csv", rows(a.Log)); err != nil {
		return err
	}
	if err := file("", "settings", ".json", doc(a.Settings)); err != nil {
		return err
	}
	for _, r := range a.Apart {
		if err := file("apart/", r.Kind+" "+r.ID, ".txt", func(w io.Writer) error { _, err := w.Write(r.Doc); return err }); err != nil {
			return err
		}
	}
	if err := z.Close(); err != nil {
		return fmt.Errorf("close the zip: %w", err)
	}
	return nil
}

// bare is a kit without its sets, which have files of their own.
func bare(k kit.Kit) kit.Kit {
	k.Sets = []kit.Set{}
	return k
}

// swatches are the measured colours as a table.
func swatches(k kit.Kit) [][]string {
	out := [][]string{{"ink", "paper", "impressions", "dried", "on"}}
	for _, s := range k.Swatches {
		ink, paper := s.Ink, s.Paper
		if i, ok := k.Ink(s.Ink); ok {
			ink = i.Name
		}
		if p, ok := k.Paper(s.Paper); ok {
			paper = p.Name
		}
		out = append(out, []string{ink, paper, strconv.Itoa(s.Impressions), s.Dry, s.On})
	}
	return out
}
