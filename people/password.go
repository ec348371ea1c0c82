package people

import (
	"crypto/rand"
	"crypto/subtle"
	"encoding/base64"
	"fmt"
	"strings"
	"unicode/utf8"

	"golang.org/x/crypto/argon2"
)

// What a password costs to try: argon2id with 19 MiB, two passes and one lane, a second's work for a phone-sized machine.
const (
	memoryKiB = 19 * 1024
	passes    = 2
	lanes     = 1
	saltBytes = 16
	keyBytes  = 32
)

// How long a password is, in letters: long ones need no rules about signs.
const (
	shortest = 10
	longest  = 200
)

// trying lets two passwords be tried at once, so that a flood of them does not fill the memory.
var trying = make(chan struct{}, 2)

// weak tells what to do about a password that will not do, empty if it will.
func weak(password string) string {
	switch n := utf8.RuneCountInString(password); {
	case n < shortest:
		return fmt.Sprintf("at least %d letters: three words that do not belong together are easy to keep in mind", shortest)
	case n > longest: // also of what is only compared: megabytes cost work
		return fmt.Sprintf("at most %d letters", longest)
	case len(strings.Trim(password, password[:1])) == 0:
		return "one letter over and over is quickly guessed: take some words"
	}
	return ""
}

// hashOf returns what is kept of a password: the algorithm, its cost, the salt and the key.
func hashOf(password string) string {
	salt := make([]byte, saltBytes)
	rand.Read(salt) // never fails: crypto/rand ends the program instead
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=%d$%s$%s", argon2.Version, memoryKiB, passes, lanes,
		base64.RawStdEncoding.EncodeToString(salt), base64.RawStdEncoding.EncodeToString(key(password, salt, memoryKiB, passes, lanes)))
}

func key(password string, salt []byte, memory, time uint32, threads uint8) []byte {
	trying <- struct{}{}
	defer func() { <-trying }()
	return argon2.IDKey([]byte(password), salt, time, memory, threads, keyBytes)
}

// matches tells whether a password is the one of a hash. For an empty hash it works as long and says no.
func matches(password, hash string) bool {
	var version int
	var memory, time uint32
	var threads uint8
	parts := strings.Split(hash, "$")
	if len(parts) != 6 {
		key(password, make([]byte, saltBytes), memoryKiB, passes, lanes)
		return false
	}
	if _, err := fmt.Sscanf(parts[2]+" "+parts[3], "v=%d m=%d,t=%d,p=%d", &version, &memory, &time, &threads); err != nil || version != argon2.Version {
		return false
	}
	salt, err := base64.RawStdEncoding.DecodeString(parts[4])
	if err != nil {
		return false
	}
	want, err := base64.RawStdEncoding.DecodeString(parts[5])
	if err != nil {
		return false
	}
	return subtle.ConstantTimeCompare(key(password, salt, memory, time, threads), want) == 1
}
