package main

import (
	"archive/zip"
	"bytes"
	"fmt"
	"image"
	"math/rand/v2"
	"net/http"
	"strings"
)

// remembered are the cases against what is kept of cards made: photographs, entries of the log,
// cards from elsewhere, and the tables of the shelves.
func remembered(rnd *rand.Rand) (out []attack) {
	send := func(name, method, path, mime string, together int, body []byte) {
		out = append(out, attack{name: name, method: method, path: path, mime: mime, body: func() []byte { return body }, together: together})
	}
	ask := func(name, method, path, body string) {
		send(name, method, path, "application/json", 1, []byte(body))
	}
	const card = "/api/cards/five-beetles"
	ask("an entry", http.MethodPost, card+"/entries", "")
	photo := func(name string, together int, body []byte) {
		send("photograph "+name, http.MethodPost, card+"/entries/1/photographs?words=x", "application/octet-stream", together, body)
	}
	photo("that claims 60,000 square", 1, claims(60000, 60000))
	photo("9,000 square, four at once", 4, encoded(image.NewGray(image.Rect(0, 0, 9000, 9000))))
	photo("60,000 long and 16 high", 1, encoded(image.NewGray(image.Rect(0, 0, 60000, 16))))
	photo("16 bits deep", 1, deepPNG(3000, 3000))
	photo("of nothing", 1, nil)
	photo("that is a table", 1, []byte("name,dry\nPlum,#663355\n"))
	good := encoded(image.NewGray(image.Rect(0, 0, 200, 200)))
	for i := range 20 {
		b := bytes.Clone(good)
		for range 1 + i/4 {
			b[rnd.IntN(len(b))] = byte(rnd.IntN(256))
		}
		photo(fmt.Sprintf("spoilt %d", i), 1, b[:len(b)-rnd.IntN(len(b)/2)*(i%2)])
	}
	for i, p := range []string{"-1", "99999999999999999999", "1.jpg.jpg", "..%2f..%2fdata", "%00"} {
		ask(fmt.Sprintf("photograph of another name %d", i), http.MethodGet, "/api/photographs/"+p, "")
	}
	for i, b := range []string{`{"well":1e9,"note":""}`, `{"well":0}`, `{"well":0,"note":"` + strings.Repeat("x", 5000) + `"}`, `[]`, strings.Repeat(`{"a":`, 50000)} {
		ask(fmt.Sprintf("entry %d", i), http.MethodPut, card+"/entries/1", b)
	}
	for i, b := range []string{`{"away":true,"model":true,"tags":[` + strings.Repeat(`"x",`, 100000) + `"x"]}`, `{"away":1}`, `{"away":false,"model":false,"tags":["` + strings.Repeat("y", 100000) + `"]}`, `null`} {
		ask(fmt.Sprintf("lying %d", i), http.MethodPut, card+"/lying", b)
	}
	ask("copy of a run that is not", http.MethodPost, card+"/copy", `{"title":"x","run":99}`)
	ask("copy with other words", http.MethodPost, card+"/copy", `{"title":"x","words":[`+strings.Repeat(`{"element":"","was":"a","is":"b"},`, 2000)+`{"element":"","was":"a","is":"b"}]}`)

	shelf := func(kind, name, rows string) {
		send("shelf "+kind+" "+name, http.MethodPost, "/api/shelf/"+kind, "text/plain", 1, []byte(rows))
	}
	for _, kind := range []string{"papers", "spacers", "adhesives", "envelopes", "gems", "machines", "inks"} {
		shelf(kind, "of nothing", "")
		shelf(kind, "endless", "name,thickness,width\nA,1e308,1e308\nB,nan,inf\nC,-1,-1\nD,"+strings.Repeat("9", 400)+",1\n")
		shelf(kind, "long", "name\n"+strings.Repeat("A\n", 6000))
		shelf(kind, "wide", strings.Repeat("name,", 200000)+"\n"+strings.Repeat("A,", 200000))
		shelf(kind, "open", "name\n\"A")
	}

	var bomb bytes.Buffer
	z := zip.NewWriter(&bomb)
	for _, name := range []string{"ochre.json", "card.json", "stores/inks/001.json"} {
		w, err := z.Create(name)
		if err != nil {
			continue
		}
		for range 60 {
			_, _ = w.Write(make([]byte, 1<<20))
		}
	}
	_ = z.Close()
	send("bundle that swells", http.MethodPost, "/api/bundles", "application/octet-stream", 3, bomb.Bytes())
	for i := range 20 {
		b := bytes.Clone(bomb.Bytes())
		for range 1 + i {
			b[rnd.IntN(len(b))] = byte(rnd.IntN(256))
		}
		send(fmt.Sprintf("bundle spoilt %d", i), http.MethodPost, "/api/bundles/look", "application/octet-stream", 1, b)
	}
	return out
}
