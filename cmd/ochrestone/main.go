// Command ochrestone serves the program on this machine.
//
//	ochrestone serve [--data FILE] [--port N]
//	ochrestone demo  [--data FILE] [--port N] [--reset]
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
	"strconv"
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
		os.Exit(2)
	}
}

func run(args []string) error {
	if len(args) == 0 {
		args = []string{"serve"}
	}
	switch args[0] {
	case "serve", "demo":
		return serve(args[0] == "demo", args[1:])
	case "trace":
		return runTrace(args[1:])
	case "register":
		return runRegister(args[1:])
	case "openapi":
		b, err := server.New(nil).OpenAPI()
		if err != nil {
			return fmt.Errorf("write the API's document: %w", err)
		}
		_, err = os.Stdout.Write(append(b, '\n'))
		return err
	}
	return fmt.Errorf("%q is not a command; use serve, demo, trace, register or openapi", args[0])
}

func port() int {
	if p, err := strconv.Atoi(os.Getenv("PORT")); err == nil {
		return p
	}
	return 8420
}

func serve(isDemo bool, args []string) error {
	file := "ochrestone.db"
	if isDemo {
		file = "demo.db"
	}
	f := flag.NewFlagSet("ochrestone", flag.ContinueOnError)
	data := f.String("data", filepath.Join("data", file), "data file")
	p := f.Int("port", port(), "port on 127.0.0.1")
	reset := f.Bool("reset", false, "put the demo back as it was")
	if err := f.Parse(args); err != nil {
		return err
	}
	if err := os.MkdirAll(filepath.Dir(*data), 0o755); err != nil {
		return fmt.Errorf("make the data folder: %w", err)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
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
	opts := []server.Option{server.Page(web.Dist())}
	if isDemo {
		opts = append(opts, server.Demo())
		if err := fill(ctx, st); err != nil {
			return err
		}
	}
	return listen(ctx, server.New(st, opts...), *p)
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
	if err := st.Fill(ctx, k, []string{"lamp-sitters", "five-beetles"}, demo.Cards(k)); err != nil {
		return fmt.Errorf("fill the demo: %w", err)
	}
	return st.Set(ctx, "demo", "1")
}

func listen(ctx context.Context, h http.Handler, port int) error {
	l, err := net.Listen("tcp", net.JoinHostPort("127.0.0.1", strconv.Itoa(port)))
	if err != nil {
		return fmt.Errorf("listen: %w; choose another with PORT=8421", err)
	}
	srv := &http.Server{Handler: h, ReadHeaderTimeout: 10 * time.Second}
	fmt.Printf("Ochrestone is at http://%s (Ctrl+C ends it)\n", l.Addr())
	go func() {
		<-ctx.Done()
		end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
		defer cancel()
		_ = srv.Shutdown(end)
	}()
	if err := srv.Serve(l); !errors.Is(err, http.ErrServerClosed) {
		return fmt.Errorf("serve: %w", err)
	}
	return nil
}
