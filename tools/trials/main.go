package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"

	"ochrestone/core/foresee"
	"ochrestone/core/together"
	"ochrestone/core/trial"
)

func main() {
	out := flag.String("out", "", "file to write the table to; none: the terminal")
	keep := flag.String("keep", "", "file to keep what was reached in, for the test that holds it")
	notes := flag.Bool("notes", false, "print every note instead")
	flag.Parse()
	var w io.Writer = os.Stdout
	if *out != "" {
		f, err := os.Create(*out)
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		defer f.Close()
		w = f
	}
	if *notes {
		printNotes(w)
		return
	}
	all := judge()
	table(w, all)
	if *keep != "" {
		if err := write(*keep, all); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
	}
}

// reached is how much of a line was told when it was printed last.
type reached struct {
	Told string `json:"told"`
	Twin string `json:"twin"`
	Mend string `json:"mend"`
}

func (r reached) rank() int { return map[string]int{"partly": int(partly), "said": int(said)}[r.Told] }

func itoa(n int) string { return strconv.Itoa(n) }

// write keeps what was reached.
func write(file string, all []judged) error {
	out := map[string]reached{}
	for _, j := range all {
		out[j.id] = reached{j.is.String(), j.twin, j.mend}
	}
	b, err := json.MarshalIndent(out, "", "\t")
	if err != nil {
		return fmt.Errorf("keep what was reached: %w", err)
	}
	return os.WriteFile(file, append(b, '\n'), 0o644)
}

// judged is what came of a line.
type judged struct {
	line
	is   verdict
	twin string // untold, told, or why it was not built
	mend string // works, and why not; none where none is offered
}

// judge lays every line before the program, with its twin and its mend.
func judge() (out []judged) {
	lines := append(append([]line{}, linesAD...), linesEK...)
	out = make([]judged, len(lines))
	together.By(len(lines), func(i int) { out[i] = lines[i].judge() })
	return out
}

// judge lays one line before the program.
func (l line) judge() judged {
	s := stranger(l.card)
	if l.first != nil {
		l.first(s)
	}
	t := tell(s, l.given)
	is, f := l.told(t)
	j := judged{line: l, is: is, twin: "not built", mend: "none"}
	if l.lacks != "" {
		j.twin = "no field"
	}
	if l.twin != nil {
		twin := stranger(l.card)
		l.twin(twin)
		j.twin = "untold"
		if v, _ := l.told(tell(twin, l.given)); v != no {
			j.twin = "told"
		}
	}
	if f != nil && f.Mend != nil {
		j.mend = mended(t, l, f)
	}
	return j
}

// mended presses a mend: its line must not be told any more, and nothing graver may come.
func mended(t *told, l line, f *foresee.Finding) string {
	c, err := t.Card.Apply(t.Kit, f.Mend.Edits...)
	if err != nil {
		return "refused"
	}
	after := maker.Of(c, t.Kit, face)
	graver := 0
	for _, g := range after.Findings {
		if g.ID == f.ID {
			return "stays"
		}
		if g.Severity != foresee.Spoils {
			continue
		}
		fresh := true
		for _, b := range t.Findings {
			fresh = fresh && (b.ID != g.ID || b.Severity != foresee.Spoils)
		}
		if fresh {
			graver++
		}
	}
	if graver > 0 {
		return "brings worse"
	}
	return "works"
}

// stranger is one of the trial cards, afresh.
func stranger(id string) *trial.Stranger {
	if s := trial.StrangerBy(id); s != nil {
		return s
	}
	panic("no trial card " + id)
}

func table(w io.Writer, all []judged) {
	fmt.Fprintf(w, "# Trial cards\n\nPrinted by `make trials`. %d cards of strangers, entered by edits as a person could on the page, and the 88 facts\na good plan of them tells. A line is *said* when the cause, the part and the number are there as values, *partly* when one\nof them is missing or is only to be seen in a table or a picture. A twin is the card with one change after which it must\nnot be told. A mend is the one that is offered, pressed.\n\n"+
		"A, B and D were also built from nothing on the page, by its fields and buttons alone. What has no field is in the last\ncolumn of both tables; everything else of them can be entered there.\n\n", len(trial.Strangers()))
	sum, told := 0.0, 0
	count := map[verdict]int{}
	for _, j := range all {
		sum += float64(j.is) / 2
		count[j.is]++
		if j.twin == "told" {
			sum -= 0.5
			told++
		}
	}
	fmt.Fprintf(w, "**%.1f of %d**: %d said, %d partly, %d no; %d told on their twins.\n\n", sum, len(all), count[said], count[partly], count[no], told)
	fmt.Fprint(w, "| line | card | fact | told | twin | mend | missing to enter it |\n|---|---|---|---|---|---|---|\n")
	for _, j := range all {
		fmt.Fprintf(w, "| %s | %s | %s | %s | %s | %s | %s |\n", j.id, j.card, j.what, j.is, j.twin, j.mend, j.lacks)
	}
	fmt.Fprint(w, "\n## Notes of each card as built\n\nJudged by hand against what the trials say is true, once, by rule and thing (`tools/trials/notes.go`); a note nobody\njudged counts as *unjudged*. One cause said again counts as idle.\n\n| card | notes | true | idle | false | unjudged | what could not be entered |\n|---|---|---|---|---|---|---|\n")
	for _, s := range trial.Strangers() {
		t := tell(s, false)
		n := judgedNotes(t)
		fmt.Fprintf(w, "| %s | %d | %d | %d | %d | %d | %s |\n", s.ID, len(t.Findings), n["true"], n["idle"], n["false"], n["unjudged"], strings.Join(s.Gaps, "; "))
	}
}

func printNotes(w io.Writer) {
	for _, s := range trial.Strangers() {
		t := tell(s, false)
		fmt.Fprintf(w, "== %s %s, %.2f mm\n", s.ID, s.Card.Title, t.Depth.Total)
		seen := map[string]int{}
		for _, f := range t.Findings {
			seen[f.Rule]++
			fmt.Fprintf(w, "  %-8s %s %s: %s %v\n", judgement(t, &f, seen), f.Rule, f.ID, f.What, f.Numbers)
		}
	}
}
