// Command dist makes what is given away: one archive for each system with the program, the
// page inside it, a short read-me and the licences of everything in it, and a list of the
// archives' checksums.
//
//	go run ./tools/dist [-out DIR] [-only linux/amd64]
package main

import (
	"archive/tar"
	"archive/zip"
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	_ "embed"
	"flag"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"text/template"
	"time"
)

// target is a system the program is made for.
type target struct{ os, arch, name string }

var targets = []target{
	{"windows", "amd64", "windows"},
	{"darwin", "arm64", "mac-apple-silicon"},
	{"darwin", "amd64", "mac-intel"},
	{"linux", "amd64", "linux"},
	{"linux", "arm64", "linux-arm64"},
}

//go:embed readme.txt
var readme string

func main() {
	out := flag.String("out", "dist", "folder for the archives")
	only := flag.String("only", "", "one system alone, as linux/amd64")
	flag.Parse()
	if err := run(*out, *only); err != nil {
		fmt.Fprintln(os.Stderr, "dist:", err)
		os.Exit(1)
	}
}

func run(out, only string) error {
	v, err := os.ReadFile("VERSION")
	if err != nil {
		return fmt.Errorf("read the version, from the folder of the source: %w", err)
	}
	version := strings.TrimSpace(string(v))
	if err := os.MkdirAll(out, 0o755); err != nil {
		return err
	}
	parts, err := everything()
	if err != nil {
		return err
	}
	licences := list(parts)
	var sums []string
	for _, t := range targets {
		if only != "" && only != t.os+"/"+t.arch {
			continue
		}
		name, sum, err := t.pack(out, version, licences)
		if err != nil {
			return fmt.Errorf("make the archive for %s on %s: %w", t.os, t.arch, err)
		}
		fmt.Println(name)
		sums = append(sums, sum+"  "+name)
	}
	if len(sums) == 0 {
		return fmt.Errorf("%q is none of the systems it is made for", only)
	}
	slices.Sort(sums)
	return os.WriteFile(filepath.Join(out, "SHA256SUMS"), []byte(strings.Join(sums, "\n")+"\n"), 0o644)
}

// file is one of an archive.
type file struct {
	name string
	mode os.FileMode
	data []byte
}

// pack builds the program for a system and packs it.
func (t target) pack(out, version, licences string) (name, sum string, err error) {
	program := "ochrestone"
	if t.os == "windows" {
		program += ".exe"
	}
	tmp, err := os.MkdirTemp("", "dist-*")
	if err != nil {
		return "", "", err
	}
	defer os.RemoveAll(tmp)
	build := exec.Command("go", "build", "-trimpath", "-ldflags", "-s -w -X main.version="+version, "-o", filepath.Join(tmp, program), "./cmd/ochrestone")
	build.Env = append(os.Environ(), "CGO_ENABLED=0", "GOOS="+t.os, "GOARCH="+t.arch)
	if said, err := build.CombinedOutput(); err != nil {
		return "", "", fmt.Errorf("build: %w: %s", err, said)
	}
	exe, err := os.ReadFile(filepath.Join(tmp, program))
	if err != nil {
		return "", "", err
	}
	var text bytes.Buffer
	if err := template.Must(template.New("readme").Parse(readme)).Execute(&text, map[string]string{"Version": version, "System": t.os, "Program": program}); err != nil {
		return "", "", err
	}
	folder := "ochrestone-" + version
	files := []file{{folder + "/" + program, 0o755, exe}, {folder + "/READ ME.txt", 0o644, text.Bytes()}, {folder + "/LICENCES.txt", 0o644, []byte(licences)}}
	pack, end := zipped, ".zip"
	if t.os == "linux" {
		pack, end = tarred, ".tar.gz"
		for _, f := range []string{"ochrestone.service", "Containerfile"} {
			data, err := os.ReadFile(filepath.Join("packaging", f))
			if err != nil {
				return "", "", err
			}
			files = append(files, file{folder + "/" + f, 0o644, data})
		}
	}
	name = fmt.Sprintf("ochrestone-%s-%s%s", version, t.name, end)
	var b bytes.Buffer
	if err := pack(&b, files); err != nil {
		return "", "", err
	}
	h := sha256.Sum256(b.Bytes())
	return name, fmt.Sprintf("%x", h), os.WriteFile(filepath.Join(out, name), b.Bytes(), 0o644)
}

// made is the time files in an archive bear: the same source gives the same archive.
var made = time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)

func zipped(w io.Writer, files []file) error {
	z := zip.NewWriter(w)
	for _, f := range files {
		h := &zip.FileHeader{Name: f.name, Method: zip.Deflate, Modified: made}
		h.SetMode(f.mode)
		to, err := z.CreateHeader(h)
		if err != nil {
			return err
		}
		if _, err := to.Write(f.data); err != nil {
			return err
		}
	}
	return z.Close()
}

func tarred(w io.Writer, files []file) error {
	g := gzip.NewWriter(w)
	t := tar.NewWriter(g)
	for _, f := range files {
		if err := t.WriteHeader(&tar.Header{Name: f.name, Mode: int64(f.mode), Size: int64(len(f.data)), ModTime: made, Format: tar.FormatPAX}); err != nil {
			return err
		}
		if _, err := t.Write(f.data); err != nil {
			return err
		}
	}
	if err := t.Close(); err != nil {
		return err
	}
	return g.Close()
}
