// Package inkfile reads and writes drawers of inks: as tables (CSV, RFC 4180)
// and as palettes (GPL: a name and three numbers of 0 to 255 a line).
package inkfile

import (
	"bufio"
	"bytes"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/words"
	"ochrestone/exchange/table"
)

// Problem says what is wrong with a file, and where.
type Problem = table.Problem

// Read is what came of a file.
type Read struct {
	Inks  []kit.Ink
	Notes []string // lines passed over, and why
}

// mostInks bounds a file.
const mostInks = 5000

var columns = []string{"name", "family", "depth", "kind", "dry", "wet", "hiding power", "dry minutes", "needs heat", "reacts with water", "bleeds through", "low", "empty", "where kept", "measured"}

// WriteCSV writes a drawer as a table.
func WriteCSV(w io.Writer, inks []kit.Ink) error {
	rows := [][]string{columns}
	yes := func(b bool) string {
		if b {
			return "yes"
		}
		return ""
	}
	num := func(f *float64) string {
		if f == nil {
			return ""
		}
		return strconv.FormatFloat(*f, 'f', -1, 64)
	}
	for _, i := range inks {
		heat := ""
		if i.NeedsHeat != nil {
			heat = "no"
			if *i.NeedsHeat {
				heat = "yes"
			}
		}
		rows = append(rows, []string{i.Name, i.Family, i.Depth, string(i.Kind), i.Dry, i.Wet, num(i.Hide), num(i.DryMinutes), heat, yes(i.Water), yes(i.Bleeds), yes(i.Low), yes(i.Gone), i.Where, yes(i.Measured)})
	}
	return table.Write(w, rows)
}

// ReadCSV reads a table with a heading. Only a name and a colour, dried or wet,
// are needed; columns may stand in any order, unknown ones are passed over.
func ReadCSV(data []byte) (Read, error) {
	var out Read
	notes, err := table.Each(data, mostInks, "name, family, depth, kind, dry, wet", out.row)
	if err != nil {
		return Read{}, err
	}
	out.Notes = notes
	return out.done()
}

// sentence is an error as a sentence.
func sentence(err error) string {
	t := err.Error()
	return words.Capital(t) + "."
}

// row takes one ink in.
func (r *Read) row(get func(string) string, line int) error {
	i := kit.Ink{Name: get("name"), Family: get("family"), Depth: get("depth"), Kind: kit.InkKind(strings.ToLower(get("kind"))), Where: get("where kept")}
	if i.Kind == "" {
		i.Kind = kit.Dye
	}
	var err1, err2 error
	i.Dry, err1 = hexOf(get("dry"))
	i.Wet, err2 = hexOf(get("wet"))
	if err := errors.Join(err1, err2); err != nil {
		return fmt.Errorf("line %d, %s: the colour is not written #rrggbb; left out", line, i.Name)
	}
	for col, to := range map[string]**float64{"hiding power": &i.Hide, "dry minutes": &i.DryMinutes} {
		if s := get(col); s != "" {
			v, err := measure.ParseNumber(s)
			if err != nil {
				return fmt.Errorf("line %d, %s: %s is %q, %w; left out", line, i.Name, col, s, err)
			}
			*to = &v
		}
	}
	yes := func(col string) bool { return table.Yes(get(col)) }
	if s := strings.ToLower(get("needs heat")); s != "" {
		v := yes("needs heat")
		i.NeedsHeat = &v
	}
	i.Water, i.Bleeds, i.Low, i.Gone, i.Measured = yes("reacts with water"), yes("bleeds through"), yes("low"), yes("empty"), yes("measured")
	if err := i.Validate(); err != nil {
		return fmt.Errorf("line %d, %s: %s; left out", line, i.Name, strings.ReplaceAll(err.Error(), "\n", "; "))
	}
	r.Inks = append(r.Inks, i)
	return nil
}

func hexOf(s string) (string, error) {
	if s == "" {
		return "", nil
	}
	c, err := colour.ParseHex(s)
	if err != nil {
		return "", err
	}
	return c.Hex(), nil
}

func (r Read) done() (Read, error) {
	if len(r.Inks) == 0 {
		if len(r.Notes) > 0 {
			return Read{}, &Problem{What: "No ink could be read. The first trouble: " + r.Notes[0] + ".", Mend: "Mend the table and try again."}
		}
		return Read{}, &Problem{What: "There is no ink in the file.", Mend: "Put one ink on each line."}
	}
	return r, nil
}

// paletteHead is the first line of a GPL palette.
const paletteHead = "GIMP Palette"

// WriteGPL writes the dried colours of a drawer as a palette.
func WriteGPL(w io.Writer, name string, inks []kit.Ink) error {
	b := bufio.NewWriter(w)
	fmt.Fprintf(b, "%s\nName: %s\nColumns: 4\n#\n", paletteHead, strings.ReplaceAll(name, "\n", " "))
	for _, i := range inks {
		hex := i.Dry
		if hex == "" {
			hex = i.Wet
		}
		if len(hex) != 7 {
			continue
		}
		v, err := strconv.ParseUint(hex[1:], 16, 32)
		if err != nil {
			continue
		}
		fmt.Fprintf(b, "%3d %3d %3d\t%s\n", v>>16, v>>8&255, v&255, strings.ReplaceAll(i.Name, "\n", " "))
	}
	if err := b.Flush(); err != nil {
		return fmt.Errorf("write the palette: %w", err)
	}
	return nil
}

// ReadGPL reads a palette; its colours are taken as dried, of dye inks.
func ReadGPL(data []byte) (Read, error) {
	data, _, err := table.Text(data)
	if err != nil {
		return Read{}, &Problem{What: sentence(err), Mend: "Nothing was taken in."}
	}
	s := bufio.NewScanner(bytes.NewReader(data))
	s.Buffer(nil, 1<<20)
	if !s.Scan() || !strings.HasPrefix(strings.TrimSpace(s.Text()), paletteHead) {
		return Read{}, &Problem{Line: 1, What: "This is not a palette.", Mend: "A GPL palette begins with its own heading line; a table of inks goes in as CSV."}
	}
	var out Read
	for line := 2; s.Scan(); line++ {
		t := strings.TrimSpace(s.Text())
		if t == "" || strings.HasPrefix(t, "#") || strings.HasPrefix(t, "Name:") || strings.HasPrefix(t, "Columns:") {
			continue
		}
		f := strings.Fields(t)
		var rgb [3]uint64
		ok := len(f) >= 3
		for i := 0; ok && i < 3; i++ {
			v, err := strconv.ParseUint(f[i], 10, 8)
			rgb[i], ok = v, err == nil
		}
		if !ok {
			out.Notes = append(out.Notes, fmt.Sprintf("line %d: three numbers of 0 to 255 were expected; left out", line))
			continue
		}
		if len(out.Inks) >= mostInks {
			return Read{}, &Problem{Line: line, What: fmt.Sprintf("The palette has more than %d colours.", mostInks), Mend: "Take it in in parts."}
		}
		name := strings.Join(f[3:], " ")
		if name == "" || name == "Untitled" {
			name = fmt.Sprintf("Colour %d", len(out.Inks)+1)
		}
		family, depth, _ := strings.Cut(name, ",")
		out.Inks = append(out.Inks, kit.Ink{Name: name, Family: strings.TrimSpace(family), Depth: strings.TrimSpace(depth), Kind: kit.Dye, Dry: fmt.Sprintf("#%02x%02x%02x", rgb[0], rgb[1], rgb[2])})
	}
	if errors.Is(s.Err(), bufio.ErrTooLong) {
		return Read{}, &Problem{Line: len(out.Inks) + len(out.Notes) + 2, What: "A line of the palette is longer than a million characters.", Mend: "Save the palette again."}
	}
	return out.done()
}

// Fresh keeps the inks that are not in the drawer yet and says what it passed
// over: the same name, whatever its case. Nearly the same colour under another
// name is kept and mentioned.
func Fresh(have []kit.Ink, in Read) Read {
	names := map[string]bool{}
	labs := nearby{}
	for _, i := range have {
		names[strings.ToLower(i.Name)] = true
		if c, err := colour.ParseHex(i.Dry); err == nil {
			labs.add(i.Name, c.Lab())
		}
	}
	out := Read{Notes: in.Notes}
	for _, i := range in.Inks {
		key := strings.ToLower(i.Name)
		if names[key] {
			out.Notes = append(out.Notes, fmt.Sprintf("%s is in the drawer already and was left as it is", i.Name))
			continue
		}
		names[key] = true
		if c, err := colour.ParseHex(i.Dry); err == nil {
			if name, d, ok := labs.near(c.Lab()); ok {
				out.Notes = append(out.Notes, fmt.Sprintf("%s dries like %s (%.1f apart): the same ink under two names?", i.Name, name, d))
			}
			labs.add(i.Name, c.Lab())
		}
		out.Inks = append(out.Inks, i)
	}
	return out
}

// nearby holds named colours by cubes of Lab, so that those close to one are found
// without looking at all.
type nearby map[[3]int][]named

type named struct {
	name string
	lab  colour.Lab
}

// cube is the side of a cube. Colours less than 1 apart by CIEDE2000 differ by less
// than that in each of L*, a* and b*: its weights never pass 2.5 in L* and C*, nor
// 4 in hue at the chromas of paper and ink.
const cube = 6.0

func (n nearby) at(c colour.Lab) [3]int {
	return [3]int{int(math.Floor(c.L / cube)), int(math.Floor(c.A / cube)), int(math.Floor(c.B / cube))}
}

func (n nearby) add(name string, c colour.Lab) {
	k := n.at(c)
	n[k] = append(n[k], named{name, c})
}

// near is the first colour found less than 1 away.
func (n nearby) near(c colour.Lab) (string, float64, bool) {
	k := n.at(c)
	for i := -1; i <= 1; i++ {
		for j := -1; j <= 1; j++ {
			for l := -1; l <= 1; l++ {
				for _, o := range n[[3]int{k[0] + i, k[1] + j, k[2] + l}] {
					if d := colour.Difference(o.lab, c); d < 1 {
						return o.name, d, true
					}
				}
			}
		}
	}
	return "", 0, false
}
