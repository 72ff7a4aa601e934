package card

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
)

// object is a JSON object taken loosely, so that what is not known stays in it.
type object = map[string]any

// upgrade1 rewrites a card of version 1: mats, panel, strips and patterns become
// sheets, joints become bonds, and what was ticked leaves the document (see Done1).
func upgrade1(b []byte) ([]byte, error) {
	var c object
	if err := json.Unmarshal(b, &c); err != nil {
		return nil, err
	}
	c["version"] = 2
	for _, m := range objects(c["motifs"]) {
		for _, l := range objects(m["layers"]) {
			moved(l)
		}
	}
	elements := []any{}
	on, paper := "", text(field(c, "base"), "paper")
	for _, s := range objects(c["sheets"]) {
		mm, _ := s["border"].(float64)
		moved(s)
		s["face"], s["place"], s["inset"] = Front, object{"x": 0, "y": 0, "turn": 0}, object{"left": mm, "right": mm, "top": mm, "bottom": mm}
		if on != "" {
			s["on"] = on
		}
		on, paper = text(s, "id"), text(s, "paper")
		s["sheet"] = object{"paper": paper}
		drop(s, "border", "paper")
		elements = append(elements, s)
	}
	for _, p := range objects(c["patterns"]) {
		// It was never laid on the card: it stays beside it.
		p["face"], p["place"] = Beside, object{"x": 0, "y": 0, "turn": 0}
		turned := object{}
		for _, k := range []string{"motif", "colourways", "turns", "anti", "start", "x", "y", "turn"} {
			if v, ok := p[k]; ok {
				turned[k] = v
			}
		}
		p["sheet"] = object{"paper": paper, "w": p["side"], "h": p["side"], "trim": p["trim"], "treatments": []any{object{"turned": turned}}}
		drop(p, "motif", "colourways", "turns", "anti", "start", "x", "y", "turn", "side", "trim")
		elements = append(elements, p)
	}
	for _, e := range objects(c["elements"]) {
		moved(e)
		e["face"], e["place"] = Front, object{"x": e["x"], "y": e["y"], "turn": e["turn"]}
		if on != "" {
			e["on"] = on
		}
		switch text(e, "kind") {
		case "motif":
			e["image"] = object{"motif": e["motif"], "colourway": e["colourway"]}
			drop(e, "kind", "motif", "colourway", "strip")
		case "strip":
			s := field(e, "strip")
			words := object{"text": s["text"], "ink": s["ink"], "letter": s["letter"]}
			if s["emboss"] == true {
				words["emboss"] = true
			}
			e["sheet"] = object{"paper": s["paper"], "w": s["w"], "h": s["h"], "treatments": []any{object{"words": words}}}
			drop(e, "kind", "strip", "motif", "colourway")
		}
		drop(e, "x", "y", "turn")
		elements = append(elements, e)
	}
	c["elements"] = elements
	if order := texts(field(c, "work")["order"]); len(order) > 0 {
		steps := []Step{}
		for _, id := range order {
			steps = append(steps, step1(id))
		}
		c["order"] = steps
	}
	drop(c, "sheets", "patterns", "work")
	return json.Marshal(c)
}

// Done1 reads what a card of version 1 says was done, and which inks were used instead
// of those planned, by the steps of today. Cards of later versions have none.
func Done1(b []byte) (done []Step, used map[Step]string, err error) {
	var c object
	if err := json.Unmarshal(b, &c); err != nil {
		return nil, nil, fmt.Errorf("read what was done on the card: %w", err)
	}
	used = map[Step]string{}
	popped := map[Step]int{}
	for _, id := range texts(field(c, "work")["done"]) {
		st := step1(id)
		if st.Verb != "pop" {
			done = append(done, st)
			continue
		}
		// Pieces were popped out one by one; now it is one step for an image.
		st.Part = ""
		if popped[st]++; popped[st] == cutLayers(c, st.Motif) {
			done = append(done, st)
		}
	}
	for id := range field(field(c, "work"), "used") {
		used[step1(id)] = text(field(field(c, "work"), "used"), id)
	}
	return done, used, nil
}

// cutLayers counts the cut layers of an image.
func cutLayers(c object, motif string) (n int) {
	for _, m := range objects(c["motifs"]) {
		for _, l := range objects(m["layers"]) {
			if text(m, "id") == motif && text(l, "make") == "cut" {
				n++
			}
		}
	}
	return n
}

// step1 is the step that a text of version 1 named.
func step1(id string) Step {
	at := strings.Split(id, ":")
	verb := at[0]
	n := 0
	if k, ok := strings.CutPrefix(verb, "blend"); ok {
		verb = "blend"
		n, _ = strconv.Atoi(k)
	}
	switch {
	case verb == "base" || verb == "finish":
		return Step{Verb: map[string]string{"base": "fold", "finish": "finish"}[verb]}
	case verb == "pattern" && len(at) > 2:
		if len(at) == 3 {
			return Step{Verb: at[2], Element: at[1]}
		}
		n, _ = strconv.Atoi(at[3])
		return Step{Verb: "print", Element: at[1], Part: at[2], N: n}
	case len(at) == 4:
		return Step{Verb: verb, Motif: at[1], Colourway: at[2], Part: at[3], N: n}
	case len(at) == 2:
		return Step{Verb: verb, Element: at[1]}
	}
	return Step{Verb: id}
}

// moved turns the joint of a thing into its bonds.
func moved(o object) {
	j := field(o, "joint")
	delete(o, "joint")
	level, _ := j["levels"].(float64)
	switch spacer := text(j, "spacer"); {
	case text(j, "kind") == "loose":
	case text(j, "kind") == "foam" && spacer != "":
		o["bonds"] = []any{object{"spacer": spacer, "level": max(1, level)}}
	default:
		o["bonds"] = []any{object{"adhesive": text(j, "glue")}}
	}
}

func objects(v any) (out []object) {
	list, _ := v.([]any)
	for _, x := range list {
		if o, ok := x.(object); ok {
			out = append(out, o)
		}
	}
	return out
}

func texts(v any) (out []string) {
	list, _ := v.([]any)
	for _, x := range list {
		if s, ok := x.(string); ok {
			out = append(out, s)
		}
	}
	return out
}

func field(o object, name string) object {
	if v, ok := o[name].(object); ok {
		return v
	}
	return object{}
}

func text(o object, name string) string {
	s, _ := o[name].(string)
	return s
}

func drop(o object, names ...string) {
	for _, n := range names {
		delete(o, n)
	}
}
