package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"slices"
	"strings"

	"dewcount/people"
	"dewcount/records"
)

// letIn prints the way to a new password for an owner: whoever can read the database on its machine may let its owner in. It works while the
// program runs.
func (p program) letIn(ctx context.Context, fset *flag.FlagSet, args []string) (err error) {
	db := database(fset)
	name := fset.String("name", "", "the owner's `NAME`, where there are several")
	if err := parseWithDB(fset, args, 0, db); err != nil {
		return err
	}
	store, err := records.OpenExisting(ctx, *db)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, store.Close()) }()
	crew := people.New(store, p.clock, "")
	all, err := crew.All(ctx)
	if err != nil {
		return err
	}
	owners := slices.DeleteFunc(all, func(x people.Person) bool { return x.Role != people.Owner })
	var names []string
	for _, o := range owners {
		names = append(names, o.Name)
	}
	if *name != "" {
		owners = slices.DeleteFunc(owners, func(x people.Person) bool { return !strings.EqualFold(x.Name, strings.TrimSpace(*name)) })
	}
	switch {
	case len(names) == 0:
		return fmt.Errorf("nobody is set up in %s yet: start dewcount serve and set up the owner with the code that it prints", *db)
	case len(owners) == 0:
		return fmt.Errorf("%q is no owner here: name one of %s", *name, strings.Join(names, ", "))
	case len(owners) > 1:
		return fmt.Errorf("there are several owners: say which with --name, one of %s", strings.Join(names, ", "))
	}
	secret, err := crew.Invite(ctx, people.Owner, owners[0].ID, "")
	if err != nil {
		return err
	}
	address := "http://" + usualAddr
	if at, err := farmAddress(ctx, store); err == nil && at != nil {
		address = at.String()
	}
	fmt.Fprintf(p.stdout, "%s chooses a new password at\n  %s/join/%s\n", owners[0].Name, address, secret)
	fmt.Fprintln(p.stdout, "It holds for a week and works once. Where Dew Count is at another address, put that one before /join.")
	return nil
}
