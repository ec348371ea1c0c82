package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"strings"
	"time"

	"dewcount/fault"
)

// A program is the command without its process: where it writes, and what time it is.
type program struct {
	stdout, stderr io.Writer
	clock          func() time.Time
}

// A command is one of the program's subcommands.
type command struct {
	name, arguments, does string
	run                   func(p program, ctx context.Context, fs *flag.FlagSet, args []string) error
}

// errUsage is a wrong call whose fault and usage are printed already.
var errUsage = errors.New("wrong call")

var commands = []command{
	{"demo", "[--addr 127.0.0.1:8080] [--db FILE]", "start with the demo farm", program.demo},
	{"play", "[--addr 127.0.0.1:8081] [--db FILE] [--season NUMBER]", "start a season to be played, on a made-up farm", program.play},
	{"serve", "--db FILE [--addr 127.0.0.1:8080] [--https] [--cert FILE --key FILE]", "start on a farm's own database", program.serve},
	{"import", "--db FILE DIR", "read a notebook folder, all or nothing", program.importNotebook},
	{"export", "--db FILE DIR", "write the notebook folder", program.export},
	{"forecast", "--db FILE --as-of DATE [--to DATE]", "print the stem forecast as CSV", program.forecast},
	{"promise", "--db FILE --as-of DATE [--to DATE]", "print how far each order will be filled as CSV", program.promise},
	{"for-date", "--db FILE --as-of DATE --crop ID --on DATE --stems N [--use USE] [--chance P]", "print ways to have stems on a day as CSV", program.forDate},
	{"even-bloom", "--db FILE --as-of DATE --crop ID --from DATE --to DATE --stems N [--chance P]", "print successions that give stems every week as CSV", program.evenBloom},
	{"milestones", "--db FILE --as-of DATE", "print the dates of every planting as CSV", program.milestones},
	{"backtest", "--db FILE [--csv]", "hold past forecasts against what was cut", program.backtest},
	{"let-in", "--db FILE [--name NAME]", "make a link by which an owner who is locked out chooses a new password", program.letIn},
	{"backup", "--db FILE COPY", "copy the database while the program runs", program.backup},
}

// run calls the subcommand that args name and returns the exit status: 0 done, 1 failed, 2 called wrongly.
func run(ctx context.Context, args []string, stdout, stderr io.Writer, clock func() time.Time) int {
	p := program{stdout, stderr, clock}
	if len(args) == 0 {
		usage(stderr)
		return 2
	}
	if args[0] == "-h" || args[0] == "--help" || args[0] == "help" {
		usage(stdout)
		return 0
	}
	for _, c := range commands {
		if c.name != args[0] {
			continue
		}
		fs := flag.NewFlagSet("dewcount "+c.name, flag.ContinueOnError)
		fs.SetOutput(stderr)
		fs.Usage = func() {
			fmt.Fprintf(stderr, "usage: dewcount %s %s\n       %s\n", c.name, c.arguments, c.does)
			fs.PrintDefaults()
		}
		switch err := c.run(p, ctx, fs, args[1:]); {
		case err == nil || errors.Is(err, flag.ErrHelp):
			return 0
		case errors.Is(err, errUsage):
			return 2
		default:
			fmt.Fprintln(stderr, sentence(err))
			return 1
		}
	}
	fmt.Fprintf(stderr, "dewcount knows no %q\n", args[0])
	usage(stderr)
	return 2
}

func usage(w io.Writer) {
	fmt.Fprintln(w, "usage:")
	for _, c := range commands {
		fmt.Fprintf(w, "  dewcount %-10s %-42s %s\n", c.name, c.arguments, c.does)
	}
}

// sentence writes an error on one line; where it has advice for a person, that alone.
func sentence(err error) string {
	if advice, ok := errors.AsType[*fault.Advice](err); ok {
		return advice.Words
	}
	return strings.Join(strings.Fields(err.Error()), " ")
}

// parse reads flags and so many further arguments; what is wrong is printed with the usage.
func parse(fs *flag.FlagSet, args []string, further int) error {
	if err := fs.Parse(args); err != nil {
		if errors.Is(err, flag.ErrHelp) {
			return err
		}
		return errUsage
	}
	if fs.NArg() != further {
		return wrong(fs, "wants %d argument(s) after its flags, not %d", further, fs.NArg())
	}
	return nil
}

// parseWithDB is parse for calls that need a database.
func parseWithDB(fs *flag.FlagSet, args []string, further int, db *string) error {
	if err := parse(fs, args, further); err != nil {
		return err
	}
	if *db == "" {
		return wrong(fs, "--db is missing")
	}
	return nil
}

// wrong prints what is wrong with a call and its usage.
func wrong(fs *flag.FlagSet, fault string, args ...any) error {
	fmt.Fprintf(fs.Output(), fs.Name()+": "+fault+"\n", args...)
	fs.Usage()
	return errUsage
}

// database adds the flag that names a farm's database.
func database(fs *flag.FlagSet) *string { return fs.String("db", "", "the farm's database `FILE`") }
