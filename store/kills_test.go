package store

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
)

// writing is a store whose every write can be made again elsewhere to the same effect: the clock
// goes by the number of the write.
type writing struct {
	*Store
	n int
}

func writeTo(path string) (*writing, error) {
	w := &writing{}
	s, err := Open(context.Background(), path, Clock(func() time.Time { return time.Unix(1_800_000_000+int64(w.n), 0) }))
	w.Store = s
	return w, err
}

// writes are all kinds of write there are, by turns. What a write does depends on its number and
// on what is stored, on nothing else. Refusals count as done: they change nothing.
func (w *writing) write(n int) error {
	w.n = n
	rng := rand.New(rand.NewPCG(uint64(n), 5))
	id := []string{"a", "b", "c"}[rng.IntN(3)]
	step := card.Step{Verb: "print", N: rng.IntN(6)}
	mark := Mark{step, "print", 2}
	v, err := w.Card(ctx, id)
	if errors.Is(err, ErrNotFound) {
		_, err = w.Add(ctx, id, titled(fmt.Sprint(id, n)))
		return err
	} else if err != nil {
		return err
	}
	r, err := w.Run(ctx, id)
	if err != nil {
		return err
	}
	dir := filepath.Dir(w.Path())
	kept := func(i int) string { return filepath.Join(dir, fmt.Sprintf("kept-%d.db", i)) }
	kinds := []func() error{
		func() error { _, err := w.Save(ctx, id, v.Version, "", titled(fmt.Sprint(id, n))); return err },
		func() error {
			_, err := w.Save(ctx, id, v.Version, fmt.Sprint("press", n/40), titled(fmt.Sprint(id, n)))
			return err
		},
		func() error { _, err := w.Undo(ctx, id, v.Version); return err },
		func() error { _, err := w.Redo(ctx, id, v.Version); return err },
		func() error {
			_, err := w.Tick(ctx, id, n%3 > 0, mark, Mark{card.Step{Verb: "cut"}, "cut", 1})
			return err
		},
		func() error { _, err := w.Leave(ctx, id, step); return err },
		func() error { _, err := w.Count(ctx, id, mark, rng.IntN(4), 3); return err },
		func() error { _, err := w.Wait(ctx, id, step, float64(rng.IntN(3)*20)); return err },
		func() error { _, err := w.Use(ctx, id, step, []string{"", "soot"}[n%2]); return err },
		func() error { _, err := w.Another(ctx, id); return err },
		func() error { _, err := w.Again(ctx, id, r.ID); return err },
		func() error { _, err := w.Renew(ctx, id); return err },
		func() error { return w.SetCompany(ctx, id, []string{"b", "c"}[:rng.IntN(3)]) },
		func() error { return w.Note(ctx, id, 2) },
		func() error { return w.Remember(ctx, id, r.ID, n%4, strings.Repeat("less glue. ", rng.IntN(400))) },
		func() error {
			_, err := w.KeepPhotograph(ctx, id, r.ID, Photograph{Words: fmt.Sprint(n)}, bytes.Repeat([]byte{byte(n)}, 40_000), []byte{1})
			return err
		},
		func() error { return w.DropPhotograph(ctx, id, r.ID, int64(rng.IntN(9)+1)) },
		func() error { return w.Lay(ctx, id, n%2 == 0, n%3 == 0, []string{"winter", fmt.Sprint(n % 5)}) },
		func() error {
			_, err := w.Log(ctx, []Placement{{Card: id, Way: "eye", Source: FromPrint, X: rng.NormFloat64()}, {Card: id, Way: "eye", Source: FromPrint}})
			return err
		},
		func() error {
			ps, err := w.Logged(ctx)
			if err != nil || len(ps) == 0 {
				return err
			}
			return w.Unlog(ctx, ps[len(ps)-1].Batch)
		},
		func() error {
			return w.PutAll(ctx, Item{Kind: KindSet, ID: "s", Value: someSet("s")}, Item{Kind: KindSet, ID: fmt.Sprint("s", n%7), Value: someSet(fmt.Sprint("s", n%7))})
		},
		func() error { return w.Take(ctx, KindSet, fmt.Sprint("s", n%7)) },
		func() error { return w.Set(ctx, "unit", fmt.Sprint(n)) },
		func() error {
			return w.AddNumbered(ctx, "sheet:", func(k int) (string, bool) { return fmt.Sprint(n), k%2 == 1 })
		},
		func() error { return w.TakeLevels(ctx, id, r.ID, Item{KindSet, "s", someSet("s")}) },
		func() error {
			return w.TakeOut(ctx, id, "kraft", map[string]int{"sheets": n}, map[string]int{"needs": 2})
		},
		func() error { // a card from elsewhere, with what it brings, and both gone again by turns
			from := fmt.Sprint("from", n%5)
			if _, err := w.Card(ctx, from); err == nil {
				return w.Delete(ctx, from)
			}
			_, err := w.AddWith(ctx, from, titled(from), Item{KindSet, from, someSet(from)}, Item{KindSet, from + "b", someSet(from + "b")})
			return err
		},
		func() error { return w.Delete(ctx, id) },
		func() error {
			_ = os.Remove(kept(n / 100))
			return w.Backup(ctx, kept(n/100))
		},
		func() error {
			was, err := filepath.Glob(filepath.Join(dir, "*-before-restore-*"))
			if err != nil {
				return err
			}
			for _, f := range was {
				_ = os.Remove(f)
			}
			if _, err := os.Stat(kept(n / 100)); err != nil {
				return nil
			}
			_, err = w.Restore(ctx, kept(n/100))
			return err
		},
	}
	// A backup and what brings it back are slow: each once in a hundred writes.
	do := kinds[rng.IntN(len(kinds)-2)]
	switch n % 100 {
	case 20:
		do = kinds[len(kinds)-2]
	case 75:
		do = kinds[len(kinds)-1]
	}
	err = do()
	for _, fine := range []error{ErrNotFound, ErrNothing, ErrTaken, ErrChanged} {
		if errors.Is(err, fine) {
			return nil
		}
	}
	return err
}

// TestWriter is not a test: the kill test below starts this binary with WRITE_TO set, to write as
// fast as it can and say of every write that it was acknowledged.
func TestWriter(t *testing.T) {
	path := os.Getenv("WRITE_TO")
	if path == "" {
		t.Skip("started by TestKillsLoseNothingAcknowledged")
	}
	from, err := strconv.Atoi(os.Getenv("WRITE_FROM"))
	require.NoError(t, err)
	w, err := writeTo(path)
	require.NoError(t, err)
	for n := from; ; n++ {
		if err := w.write(n); err != nil {
			_, _ = fmt.Printf("write %d failed: %v\n", n, err)
			os.Exit(3)
		}
		if _, err := os.Stdout.WriteString("wrote " + strconv.Itoa(n) + "\n"); err != nil {
			return
		}
	}
}

// A program that is killed at any moment of any kind of write has lost nothing that it had
// acknowledged, and has done nothing by halves: all that is stored is what the same writes make
// of a store that nobody kills, up to the last acknowledged or to the one after it. KILLS says
// how often; docs/MEASURED.md says what 1,000 gave.
func TestKillsLoseNothingAcknowledged(t *testing.T) {
	kills := 24
	if n, err := strconv.Atoi(os.Getenv("KILLS")); err == nil {
		kills = n
	}
	rng := rand.New(rand.NewPCG(uint64(kills), 1))
	var path string
	var model *writing
	next, total, begun, between := 0, 0, 0, 0
	for kill := range kills {
		if kill%40 == 0 { // a fresh file now and then: the first opening is killed too
			if model != nil {
				require.NoError(t, model.Close())
			}
			path, next = filepath.Join(t.TempDir(), "a.db"), 0
			m, err := writeTo(filepath.Join(t.TempDir(), "model.db"))
			require.NoError(t, err)
			_, err = m.db.Exec(`PRAGMA synchronous(OFF)`)
			require.NoError(t, err)
			model = m
		}
		said := killed(t, path, next, time.Duration(rng.IntN(120))*time.Millisecond)
		if said > next {
			begun++
		}
		for ; next < said; next++ {
			require.NoError(t, model.write(next))
		}
		w, err := writeTo(path)
		require.NoError(t, err, "kill %d", kill)
		if is := everyRow(t, w.Store); !reflect.DeepEqual(everyRow(t, model.Store), is) {
			require.NoError(t, model.write(next))
			require.Equal(t, everyRow(t, model.Store), is, "kill %d: what was acknowledged up to write %d, or the next with it", kill, next-1)
			next++
			between++
		}
		if kill%20 == 0 {
			rep, err := w.Check(ctx)
			require.NoError(t, err)
			assert.False(t, rep.Torn(), "kill %d: %v", kill, rep.Problems)
		}
		require.NoError(t, w.Close())
		total = max(total, next)
	}
	require.NoError(t, model.Close())
	t.Logf("%d kills, %d of them while it wrote; %d in a write that was done and not yet acknowledged; up to %d writes to a file", kills, begun, between, total)
	assert.Greater(t, begun, kills/4, "most kills come while it writes")
}

// killed starts a writer that goes on with its writes from a number, kills it so long after it
// began to write, or so long after it was started, and tells how many writes were acknowledged
// in all.
func killed(t *testing.T, path string, from int, after time.Duration) (acknowledged int) {
	cmd := exec.Command(os.Args[0], "-test.run", "^TestWriter$")
	cmd.Env = append(os.Environ(), "WRITE_TO="+path, "WRITE_FROM="+strconv.Itoa(from), "TMPDIR="+filepath.Dir(path)) // what a killed restore leaves goes with the test
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	var said bytes.Buffer
	wrote := make(chan struct{}, 1)
	var all sync.WaitGroup
	all.Go(func() {
		_, _ = io.Copy(io.MultiWriter(&said, told(wrote)), out)
	})
	if after%3 > 0 { // two of three once it writes
		select {
		case <-wrote:
		case <-time.After(30 * time.Second):
			t.Error("the writer wrote nothing")
		}
	}
	time.Sleep(after)
	require.NoError(t, cmd.Process.Kill())
	all.Wait()
	_ = cmd.Wait()
	require.NotContains(t, said.String(), "failed", "every write goes well until it is killed")
	lines := slices.DeleteFunc(strings.Split(said.String(), "\n"), func(l string) bool { return !strings.HasPrefix(l, "wrote ") })
	if len(lines) == 0 {
		return from
	}
	last := strings.TrimPrefix(lines[len(lines)-1], "wrote ")
	if !strings.HasSuffix(said.String(), "\n") { // the last line may be cut off
		last = strings.TrimPrefix(append([]string{"wrote " + strconv.Itoa(from-1)}, lines...)[len(lines)-1], "wrote ")
	}
	n, err := strconv.Atoi(last)
	require.NoError(t, err)
	return n + 1
}

// told tells a channel that something was written.
type told chan struct{}

func (c told) Write(p []byte) (int, error) {
	select {
	case c <- struct{}{}:
	default:
	}
	return len(p), nil
}
