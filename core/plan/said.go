package plan

import (
	"fmt"
	"strings"

	"ochrestone/core/build"
	"ochrestone/core/words"
)

// Treated is what a treatment of a sheet comes to, in words.
type Treated struct {
	ID      string `json:"id" doc:"of the sheet's element"`
	At      int    `json:"at" doc:"which of its treatments, from 0"`
	Say     string `json:"say"`
	Problem string `json:"problem,omitempty" doc:"why it cannot be done"`
}

// Lettered is what words cut from card come to.
type Lettered struct {
	ID      string `json:"id"`
	Say     string `json:"say"`
	Pieces  int    `json:"pieces" doc:"letters to cut, all plies"`
	Passes  int    `json:"passes" doc:"through the machine with one die of each letter; 0 for drawn letters"`
	Islands int    `json:"islands" doc:"loose islands that fall out, all plies"`
}

// tell says what treatments and letters come to.
func (b *builder) tell() {
	f := &b.plan.Front
	for _, t := range append([]build.Thing{b.plan.Build.Base}, b.plan.Build.Things...) {
		for n, done := range t.Treated {
			if say := b.treated(done); say != "" || done.Problem != "" {
				f.Treated = append(f.Treated, Treated{t.Element.ID, n, say, done.Problem})
			}
		}
		if t.Line != nil {
			f.Letters = append(f.Letters, b.lettered(t))
		}
	}
}

func (b *builder) treated(d build.Treated) string {
	write := b.o.write.Length
	var out []string
	switch {
	case d.Wide > 0:
		out = append(out, fmt.Sprintf("Comes out %s wide.", write(d.Wide)))
	case d.Room > 0:
		rest := d.Room - d.Sum
		how := fmt.Sprintf("%s stays bare after the last.", write(rest))
		if rest < -bandHair {
			how = fmt.Sprintf("They need %s more than there is.", write(-rest))
		} else if rest < bandHair {
			how = "They fill it."
		}
		out = append(out, fmt.Sprintf("%s of %s. %s", write(d.Sum), write(d.Room), how))
	case d.Prints > 1:
		out = append(out, fmt.Sprintf("%d in all.", d.Prints))
	}
	if d.Plain {
		out = append(out, "Its layers have no ink yet: choose them in Inks.")
	}
	if d.Off > 0.005 {
		out = append(out, fmt.Sprintf("%.0f %% runs over the edge.", 100*d.Off))
	}
	return strings.Join(out, " ")
}

// bandHair is by how much, mm, bands may miss the end of their sheet without a word.
const bandHair = 0.05

func (b *builder) lettered(t build.Thing) Lettered {
	l := t.Element.Letters
	n := len(t.Line.Letters)
	out := Lettered{ID: t.Element.ID, Pieces: n * l.Times(), Islands: t.Islands * l.Times()}
	if t.Problem != "" {
		out.Say = t.Problem
		return out
	}
	say := []string{fmt.Sprintf("%s, %s; %s wide", words.Count(n, "letter"), words.Count(out.Pieces, "piece"), b.o.write.Length(t.Local.Bounds().W()))}
	if l.Set == "" {
		say = append(say, fmt.Sprintf("capitals %s high", b.o.write.Length(t.Line.Size)))
	} else {
		out.Passes = t.Line.Passes * l.Times()
		say = append(say, words.Count(out.Passes, "pass", "passes")+" with one die of each")
	}
	if out.Islands > 0 {
		say = append(say, words.Count(out.Islands, "island"))
	}
	if len(t.Line.Missing) > 0 {
		say = append(say, "nothing for "+strings.Join(t.Line.Missing, ", "))
	}
	out.Say = strings.Join(say, "; ") + "."
	return out
}
