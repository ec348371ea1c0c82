package people

import (
	"context"
	"crypto/rand"
	"slices"
	"strings"
	"time"

	"dewcount/fault"
)

// An Invitation lets one person in, once, until it ends.
type Invitation struct {
	Hash   string // of the secret in its link
	Role   Role
	Person string // whose password it renews; empty where it lets somebody new in
	Until  string // UTC
	MadeBy string // id of the owner who made it, with whom it ends; empty where it was made at the machine itself
	MadeAt string // UTC
}

// invitationTime is how long an invitation holds.
const invitationTime = 7 * 24 * time.Hour

// Invite returns the secret of a link that lets somebody in with a role, or renews the password of the person with an id. It is made by the
// owner of an id, and holds as long as they are one; by nobody where it is made at the machine itself.
func (p *People) Invite(ctx context.Context, role Role, person, madeBy string) (string, error) {
	if person != "" {
		who, err := p.find(ctx, func(x Person) bool { return x.ID == person })
		if err != nil {
			return "", err
		}
		role = who.Role
	}
	if !slices.Contains(Roles(), role) {
		return "", fault.List{{Field: "role", Advice: "choose owner, crew or reader"}}
	}
	secret := rand.Text()
	now := p.clock().UTC()
	return secret, p.store.Invite(ctx, Invitation{Hash: secretHash(secret), Role: role, Person: person, MadeBy: madeBy,
		MadeAt: now.Format(time.RFC3339), Until: now.Add(invitationTime).Format(time.RFC3339)})
}

// Invitations returns those that still let somebody in, the one that ends first first.
func (p *People) Invitations(ctx context.Context) ([]Invitation, error) {
	all, err := p.store.Invitations(ctx)
	if err != nil {
		return nil, err
	}
	owners, err := p.store.People(ctx)
	if err != nil {
		return nil, err
	}
	now := p.clock().UTC().Format(time.RFC3339)
	open := slices.DeleteFunc(all, func(x Invitation) bool {
		made := x.MadeBy == "" || slices.ContainsFunc(owners, func(o Person) bool { return o.ID == x.MadeBy && o.Role == Owner })
		return x.Until <= now || !made
	})
	slices.SortFunc(open, func(a, b Invitation) int { return strings.Compare(a.Until+a.Hash, b.Until+b.Hash) })
	return open, nil
}

// EndInvitation ends an invitation before its time.
func (p *People) EndInvitation(ctx context.Context, hash string) error {
	there, err := p.store.EndInvitation(ctx, hash)
	if err == nil && !there {
		err = ErrNoLink
	}
	return err
}

// Invited returns the invitation of a secret, and the person whose password it renews, if it does.
func (p *People) Invited(ctx context.Context, secret, from string) (Invitation, Person, error) {
	limits := p.guard.secretLimits("link", from)
	if err := p.guard.enter(limits...); err != nil {
		return Invitation{}, Person{}, err
	}
	all, err := p.Invitations(ctx)
	if err != nil {
		return Invitation{}, Person{}, err
	}
	i := slices.IndexFunc(all, func(x Invitation) bool { return x.Hash == secretHash(secret) })
	if i < 0 {
		return Invitation{}, Person{}, ErrNoLink
	}
	p.guard.passed(limits...)
	if all[i].Person == "" {
		return all[i], Person{}, nil
	}
	who, err := p.find(ctx, func(x Person) bool { return x.ID == all[i].Person })
	return all[i], who, err
}

// Join lets somebody in by the secret of an invitation.
func (p *People) Join(ctx context.Context, secret, name, password, from string) (Person, error) {
	invitation, who, err := p.Invited(ctx, secret, from)
	if err != nil {
		return Person{}, err
	}
	p.mutex.Lock()
	defer p.mutex.Unlock()
	if who.ID == "" {
		all, err := p.store.People(ctx)
		if err != nil {
			return Person{}, err
		}
		if who, err = p.newPerson(all, name, password, invitation.Role); err != nil {
			return Person{}, err
		}
	} else if who, err = renewed(who, password); err != nil {
		return Person{}, err
	}
	there, err := p.store.Admit(ctx, who, invitation.Hash)
	if err == nil && !there {
		err = ErrNoLink
	}
	return who, err
}

// renewed gives a person a new password, which ends all their sessions.
func renewed(who Person, password string) (Person, error) {
	if advice := weak(password); advice != "" {
		return who, fault.List{{Field: "password", Advice: advice}}
	}
	who.Password = hashOf(password)
	who.Epoch++
	return who, nil
}
