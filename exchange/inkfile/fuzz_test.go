package inkfile

import (
	"bytes"
	"errors"
	"testing"
)

// sound checks what a reader gives: inks that are inks, or a problem in words, and
// what is written of them comes back.
func sound(t *testing.T, r Read, err error) {
	if err != nil {
		var p *Problem
		if !errors.As(err, &p) || p.Mend == "" {
			t.Fatalf("no words: %v", err)
		}
		return
	}
	for _, i := range r.Inks {
		if err := i.Validate(); err != nil {
			t.Fatalf("%+v: %v", i, err)
		}
	}
	var b bytes.Buffer
	if err := WriteCSV(&b, r.Inks); err != nil {
		t.Fatal(err)
	}
	back, err := ReadCSV(b.Bytes())
	if err != nil || len(back.Inks) != len(r.Inks) {
		t.Fatalf("%d inks went out, %d came back: %v %v", len(r.Inks), len(back.Inks), err, back.Notes)
	}
}

func FuzzReadCSV(f *testing.F) {
	f.Add([]byte("name,dry,hiding power,dry minutes,needs heat\nPlum,#663355,\"0,2\",3,yes\n"))
	f.Add([]byte("name;wet\n\"'=Gr\xfcn\";#336633\n"))
	f.Add([]byte("\xff\xfen\x00a\x00m\x00e\x00"))
	f.Fuzz(func(t *testing.T, b []byte) {
		r, err := ReadCSV(b)
		sound(t, r, err)
	})
}

func FuzzReadGPL(f *testing.F) {
	f.Add([]byte(paletteHead + "\nName: x\n#\n 12 200  7\tMere, pale\n0 0 0\n"))
	f.Fuzz(func(t *testing.T, b []byte) {
		r, err := ReadGPL(b)
		sound(t, r, err)
	})
}
