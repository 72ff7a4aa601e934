// Package table reads and writes tables (CSV, RFC 4180) as office programs do:
// in whatever letters they were saved, and so that no cell is run as a formula.
package table

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"ochrestone/core/words"
)

// ErrBinary is returned for a file that is no text at all.
var ErrBinary = errors.New("this is not a table but a program's own file; save it as CSV")

// Text decodes a file: UTF-8 with or without its mark, UTF-16 by its mark or by its
// many noughts, else the letters of western Europe (Windows-1252, which Latin-1
// is part of). It tells which.
func Text(data []byte) (text []byte, as string, err error) {
	for _, head := range []string{"PK\x03\x04", "\xd0\xcf\x11\xe0", "%PDF", "\x89PNG"} {
		if bytes.HasPrefix(data, []byte(head)) {
			return nil, "", ErrBinary
		}
	}
	sixteen := func(order unicode.Endianness, policy unicode.BOMPolicy, as string) ([]byte, string, error) {
		out, err := unicode.UTF16(order, policy).NewDecoder().Bytes(data)
		if err != nil || bytes.ContainsRune(out, utf8.RuneError) {
			return nil, "", fmt.Errorf("the file seems to be %s but is damaged; save it again as UTF-8", as)
		}
		return out, as, nil
	}
	switch {
	case bytes.HasPrefix(data, []byte("\xef\xbb\xbf")):
		data = data[3:]
	case bytes.HasPrefix(data, []byte("\xff\xfe")):
		return sixteen(unicode.LittleEndian, unicode.ExpectBOM, "UTF-16")
	case bytes.HasPrefix(data, []byte("\xfe\xff")):
		return sixteen(unicode.BigEndian, unicode.ExpectBOM, "UTF-16")
	}
	if n := bytes.Count(data, []byte{0}); n > 0 {
		if n*3 < len(data) {
			return nil, "", ErrBinary
		}
		if data[0] == 0 {
			return sixteen(unicode.BigEndian, unicode.IgnoreBOM, "UTF-16")
		}
		return sixteen(unicode.LittleEndian, unicode.IgnoreBOM, "UTF-16")
	}
	if utf8.Valid(data) {
		return data, "UTF-8", nil
	}
	out, err := charmap.Windows1252.NewDecoder().Bytes(data)
	if err != nil {
		return nil, "", fmt.Errorf("the letters of the file cannot be told; save it again as UTF-8: %w", err)
	}
	return out, "Windows-1252", nil
}

// Problem says what is wrong with a file, and where.
type Problem struct {
	Line int
	What string
	Mend string
}

func (p *Problem) Error() string {
	if p.Line > 0 {
		return fmt.Sprintf("line %d: %s %s", p.Line, p.What, p.Mend)
	}
	return p.What + " " + p.Mend
}

// Each reads a table with a heading, separated by commas or semicolons, and calls row for each
// of its lines with what gives the cell of a column, empty where there is none, by the heading
// in small letters; an error of row is kept as a note, and the line is passed over. It returns
// a Problem where the file is no table, has no column called name, or more than so many lines.
// columns are named as the mend.
func Each(data []byte, most int, columns string, row func(get func(column string) string, line int) error) (notes []string, err error) {
	data, _, err = Text(data)
	if err != nil {
		t := err.Error()
		return nil, &Problem{What: words.Capital(t) + ".", Mend: "Nothing was taken in."}
	}
	r := csv.NewReader(bytes.NewReader(data))
	r.FieldsPerRecord = -1
	r.TrimLeadingSpace = true
	if first, _, _ := bytes.Cut(data, []byte("\n")); bytes.Count(first, []byte(";")) > bytes.Count(first, []byte(",")) {
		r.Comma = ';' // as some office programs write it
	}
	head, err := r.Read()
	if err != nil {
		return nil, &Problem{What: "The table is empty.", Mend: "Its first line names the columns: " + columns + "."}
	}
	at := map[string]int{}
	for i, h := range head {
		at[strings.ToLower(strings.TrimSpace(h))] = i
	}
	if _, ok := at["name"]; !ok {
		return nil, &Problem{Line: 1, What: "There is no column called name.", Mend: "Name the columns in the first line: " + columns + "."}
	}
	for n := 0; ; n++ {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) {
			return notes, nil
		}
		if err != nil {
			line := 0
			var pe *csv.ParseError
			if errors.As(err, &pe) {
				line = pe.Line
			}
			return nil, &Problem{Line: line, What: "The line cannot be read: a quotation mark is open.", Mend: "Save the table again."}
		}
		line, _ := r.FieldPos(0)
		if n >= most {
			return nil, &Problem{Line: line, What: fmt.Sprintf("The table has more than %d lines.", most), Mend: "Take it in in parts."}
		}
		get := func(col string) string {
			if i, ok := at[col]; ok && i < len(cells) {
				return strings.TrimSpace(Plain(cells[i]))
			}
			return ""
		}
		if err := row(get, line); err != nil {
			t := []rune(err.Error())
			if len(t) > 240 {
				t = append(t[:240], []rune("…; left out")...)
			}
			notes = append(notes, string(t))
		}
	}
}

// Yes reports whether a cell says yes.
func Yes(cell string) bool {
	return slices.Contains([]string{"yes", "y", "true", "1", "x"}, strings.ToLower(cell))
}

// runs are the characters with which a table program takes a cell for a formula.
const runs = "=+-@\t\r"

// Safe is a cell that no table program runs: what begins like a formula gets an
// apostrophe before it. Plain numbers stay numbers.
func Safe(cell string) string {
	if cell == "" || !strings.ContainsRune(runs, rune(cell[0])) || number(cell) {
		return cell
	}
	return "'" + cell
}

// Plain takes away the apostrophe that Safe put before a cell.
func Plain(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && strings.ContainsRune(runs, rune(cell[1])) {
		return cell[1:]
	}
	return cell
}

func number(s string) bool {
	digits := strings.TrimLeft(s, "+-")
	return len(s)-len(digits) <= 1 && digits != "" && strings.Trim(digits, "0123456789.") == "" && strings.Count(digits, ".") <= 1
}

// Write writes rows, each cell safe.
func Write(w io.Writer, rows [][]string) error {
	c := csv.NewWriter(w)
	for i, row := range rows {
		out := make([]string, len(row))
		for k, cell := range row {
			out[k] = Safe(cell)
		}
		if err := c.Write(out); err != nil {
			return fmt.Errorf("write line %d of the table: %w", i+1, err)
		}
	}
	c.Flush()
	return c.Error()
}
