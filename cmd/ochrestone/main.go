// Command ochrestone serves the program on this machine.
//
//	ochrestone                                     as by a double click: serves, and opens the page
//	ochrestone serve [--data FILE] [--port N] [--open]
//	ochrestone demo  [--data FILE] [--port N] [--open] [--reset]
//	ochrestone version
//	ochrestone check   [--data FILE]
//	ochrestone backup  [--data FILE] TO.db
//	ochrestone restore [--data FILE] BACKUP.db
//	ochrestone export  [--data FILE] EVERYTHING.zip
//	ochrestone openapi
//	ochrestone trace PICTURE [--dpi N] [--light-on-dark | --dark-on-light | --mat | --stamps | --stencil] [--stack] [-o SET.svg] [--json REPORT.json]
//	ochrestone register --set SET.svg --print PROOF.png --colours #rrggbb,… [--dpi N] [--paper #rrggbb] [--json REPORT.json]
//
// It ends with 0, with 1 when something found would spoil the work, and with 2
// on bad input.
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io/fs"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"runtime/debug"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"ochrestone/demo"
	"ochrestone/server"
	"ochrestone/store"
	"ochrestone/web"
)

func main() {
	switch err := run(os.Args[1:]); {
	case errors.Is(err, errSpoils):
		os.Exit(1)
	case err != nil:
		fmt.Fprintln(os.Stderr, "ochrestone:", err)
		if len(os.Args) == 1 {
			holdWindow()
		}
		os.Exit(2)
	}
}

func run(args []string) error {
	if len(args) == 0 {
		args = []string{"serve", "--open"}
	}
	switch args[0] {
	case "version", "--version":
		fmt.Println("Ochrestone", version)
		return nil
	case "serve", "demo":
		return serve(args[0] == "demo", args[1:])
	case "trace":
		return runTrace(args[1:])
	case "register":
		return runRegister(args[1:])
	case "check":
		return runCheck(args[1:])
	case "backup":
		return runBackup(args[1:])
	case "restore":
		return runRestore(args[1:])
	case "export":
		return runExport(args[1:])
	case "openapi":
		b, err := server.New(nil).OpenAPI()
		if err != nil {
			return fmt.Errorf("write the API's document: %w", err)
		}
		_, err = os.Stdout.Write(append(b, '\n'))
		return err
	}
	return fmt.Errorf("%q is not a command; use serve, demo, version, trace, register, check, backup, restore, export or openapi", args[0])
}

// port is the one asked for by PORT, or the usual one.
func port() (int, error) {
	text := os.Getenv("PORT")
	if text == "" {
		return 8420, nil
	}
	p, err := strconv.Atoi(text)
	if err != nil || p < 0 || p > 65535 {
		return 0, fmt.Errorf("PORT is %q; it is a number from 1 to 65535", text)
	}
	return p, nil
}

func serve(isDemo bool, args []string) error {
	f := flag.NewFlagSet("ochrestone", flag.ContinueOnError)
	data := f.String("data", usualData(isDemo), "data file")
	usual, err := port()
	if err != nil {
		return err
	}
	p := f.Int("port", usual, "port on 127.0.0.1")
	open := f.Bool("open", false, "open the page in the browser")
	reset := f.Bool("reset", false, "put the demo back as it was")
	if err := f.Parse(args); err != nil {
		return err
	}
	if f.NArg() > 0 {
		return fmt.Errorf("%q is not understood here; flags begin with --, such as --data FILE", f.Arg(0))
	}
	if *p < 0 || *p > 65535 {
		return fmt.Errorf("--port is %d; it is a number from 1 to 65535", *p)
	}
	if *reset && !isDemo {
		return errors.New("--reset belongs to the demo; your own data is never reset")
	}
	if strings.TrimSpace(*data) == "" {
		return store.ErrNoName
	}
	if err := os.MkdirAll(filepath.Dir(*data), 0o755); err != nil {
		return fmt.Errorf("make the data folder: %w", err)
	}
	if !exists(os.TempDir()) { // a small server's container has no folder for passing files
		if err := os.Setenv("TMPDIR", absolute(filepath.Dir(*data))); err != nil {
			return fmt.Errorf("find a folder for passing files: %w", err)
		}
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	fixed := os.Getenv("PORT") != ""
	f.Visit(func(g *flag.Flag) { fixed = fixed || g.Name == "port" })
	if !*reset && !fixed {
		if url, runs := running(ctx, *data); runs {
			fmt.Printf("Ochrestone runs already, at %s, with %s\n", url, *data)
			show(url, *open)
			return nil
		}
	}
	if isDemo {
		if err := onlyDemo(ctx, *data); err != nil {
			return err
		}
	}
	if isDemo && *reset {
		for _, end := range []string{"", "-wal", "-shm"} {
			if err := os.Remove(*data + end); err != nil && !errors.Is(err, fs.ErrNotExist) {
				return fmt.Errorf("put the demo back: %w", err)
			}
		}
	}
	st, err := store.Open(ctx, *data)
	if err != nil {
		return err
	}
	defer st.Close()
	carriers, err := carriersBeside(*data)
	if err != nil {
		return err
	}
	opts := []server.Option{server.Page(web.Dist()), server.Carriers(carriers), server.Version(version)}
	if isDemo {
		opts = append(opts, server.Demo())
		if err := fill(ctx, st); err != nil {
			return err
		}
	}
	srv := server.New(st, opts...)
	defer srv.Close()
	if !isDemo {
		var copies sync.WaitGroup
		till, end := context.WithCancel(ctx)
		copies.Go(func() { srv.Daily(till) })
		defer copies.Wait() // before the data file is closed
		defer end()
	}
	return listen(ctx, srv, *data, *p, fixed, *open)
}

// onlyDemo refuses a data file that holds anything but the demo.
func onlyDemo(ctx context.Context, path string) error {
	if st, err := os.Stat(path); err != nil || st.Size() == 0 {
		return nil // it is made anew
	}
	st, err := store.Open(ctx, path)
	if err != nil {
		return err
	}
	defer st.Close()
	if is, err := st.Setting(ctx, "demo", ""); err != nil || is != "" {
		return err
	}
	cards, err := st.Cards(ctx)
	if err != nil {
		return err
	}
	k, err := st.Kit(ctx)
	if err != nil {
		return err
	}
	if len(cards)+len(k.Sets)+len(k.Inks)+len(k.Papers) == 0 {
		return nil
	}
	return fmt.Errorf("%s holds your own cards and stores, not the demo; the demo does not touch it: name another file with --data", path)
}

// fill puts the demo into an empty data file.
func fill(ctx context.Context, st *store.Store) error {
	done, err := st.Setting(ctx, "demo", "")
	if err != nil || done != "" {
		return err
	}
	k, err := demo.Kit()
	if err != nil {
		return err
	}
	if err := st.Fill(ctx, k, []string{"lamp-sitters", "five-beetles", "toadstools", "lantern", "moth-night", "coast-night"}, demo.Cards(k)); err != nil {
		return fmt.Errorf("fill the demo: %w", err)
	}
	return st.Set(ctx, "demo", "1")
}

// memoryLimit is how much memory, in bytes, the program takes before it gives
// back more eagerly.
const memoryLimit = 420 << 20

// listen serves on a port of this machine: on that one if it was asked for, else on that
// or, where another program has it, on a free one.
func listen(ctx context.Context, h http.Handler, data string, port int, fixed, open bool) error {
	l, err := net.Listen("tcp", net.JoinHostPort("127.0.0.1", strconv.Itoa(port)))
	if err != nil && !fixed {
		l, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return fmt.Errorf("listen: %w; choose another with PORT=8421", err)
	}
	url := "http://" + l.Addr().String()
	fmt.Printf("Ochrestone %s is at %s\nYour work is kept in %s\nCtrl+C, or closing this window, ends it; nothing is lost by that.\n", version, url, absolute(data))
	defer sayWhere(data, url)()
	show(url, open)
	return answer(ctx, h, l)
}

// answer serves h on l until ctx ends, and comes back when the answers then being given are
// given, or after five seconds.
func answer(ctx context.Context, h http.Handler, l net.Listener) error {
	srv := &http.Server{Handler: h, ReadHeaderTimeout: 10 * time.Second, IdleTimeout: 2 * time.Minute}
	debug.SetMemoryLimit(memoryLimit)
	ended := make(chan struct{})
	go func() {
		defer close(ended)
		<-ctx.Done()
		end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		_ = srv.Shutdown(end)
	}()
	if err := srv.Serve(l); !errors.Is(err, http.ErrServerClosed) {
		return fmt.Errorf("serve: %w", err)
	}
	// Serve returns as soon as the end begins; whoever called closes the data file next, so
	// the answers being given are waited for.
	<-ended
	return nil
}
