package e2e

import (
	"context"
	"regexp"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// letter waits for the nth letter to an address and returns the path its link leads to.
func (a *app) letter(t testing.TB, to string, n int) string {
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
	defer cancel()
	came := a.box.Wait(ctx, to, n)
	require.Len(t, came, n)
	m := regexp.MustCompile(`(/once/\w+)`).FindString(came[0].Says)
	require.NotEmpty(t, m, came[0].Says)
	return m
}

const quiet = "three quiet lamps"

// An owner asks somebody to join by letter; in a browser of her own she sets a password
// and a second factor, loses the device, comes in with a recovery code, and is shut out.
func TestSomebodyJoinsAndIsShutOut(t *testing.T) {
	t.Parallel()
	a := start(t)
	owner := a.signedIn(t, wren, laptop, "/studio")
	owner.clickText("People")
	owner.until(`document.querySelectorAll('[data-person]').length === 2`)
	owner.typeInto(`input[aria-label="E-mail of whoever is asked"]`, "mia@saltmarsh.example")
	owner.clickText("Send a letter")
	owner.untilSays("the link opens until")

	hers := a.open(t, phone, a.letter(t, "mia@saltmarsh.example", 1))
	hers.untilSays("Join The Saltmarsh Players")
	hers.typeInto(`#name`, "Mia O’Hara")
	hers.typeInto(`#password`, "password1234")
	hers.press("Join")
	hers.untilSays("one of the first that are guessed")
	hers.typeInto(`#password`, quiet)
	hers.press("Join")
	hers.until(`document.querySelector('.today_today')`)
	hers.clickText("Mia O’Hara")
	hers.clickText("Set up a second factor")
	secret := hers.text(".account_secret")
	code, err := totp.GenerateCode(secret, time.Now())
	require.NoError(t, err)
	hers.typeInto(`input[aria-label="The six digits it shows"]`, code)
	hers.press("Ask for it from now on")
	hers.untilSays("Keep these ten codes")
	recovery := hers.text(".account_codes li")
	hers.clickText("Sign out")
	hers.until(`document.querySelector('.signin_door')`)
	hers.typeInto(`#email`, "mia@saltmarsh.example")
	hers.typeInto(`#password`, quiet)
	hers.press("Sign in")
	hers.untilSays("The six digits of the authenticator")
	hers.typeInto(`#code`, recovery)
	hers.press("Sign in")
	hers.until(`document.querySelector('.account_codes, .leaves_dossierMain, .today_today')`)
	hers.do(chromedp.Navigate(a.url + "/me"))
	hers.untilSays("9 recovery codes are left")

	// Shut out: her next request says so.
	owner.do(chromedp.Reload())
	owner.until(`document.querySelectorAll('[data-person]').length === 3`)
	owner.click(`[data-person="mia@saltmarsh.example"] button`)
	owner.until(`document.querySelector('[data-person="mia@saltmarsh.example"]').innerText.includes('Let in again')`)
	time.Sleep(2500 * time.Millisecond)
	hers.clickText("Clients")
	hers.until(`document.querySelector('.signin_door')`)
	hers.untilSays("disabled")
	owner.clickText("Security")
	owner.untilSays("used a recovery code")

	// Which way round dates are written is the reader's, on pages and in what the server says.
	owner.do(chromedp.Navigate(a.url + clientPath("Aurelio Finch", "priorities")))
	owner.until(`/\d+ [A-Z][a-z]+ 20\d\d/.test(document.body.innerText.replaceAll('\u00a0', ' '))`)
	owner.do(chromedp.Navigate(a.url + "/me"))
	owner.until(`document.querySelector("[aria-label=Dates]")`)
	owner.pick("Dates", "November 30, 2026")
	owner.untilSays("November 30, 2026")
	owner.do(chromedp.Navigate(a.url + clientPath("Aurelio Finch", "priorities")))
	owner.until(`document.querySelector('.priorities_headLine')`)
	owner.until(`/[A-Z][a-z]+ \d+, 20\d\d/.test(document.body.innerText.replaceAll('\u00a0', ' ')) &&
		!/\d+ [A-Z][a-z]+ 20\d\d/.test(document.body.innerText.replaceAll('\u00a0', ' '))`)
	owner.do(chromedp.Navigate(a.url + "/studio/people"))
	owner.until(`document.querySelectorAll('[data-person]').length === 3`)

	// Nobody takes the last owner out.
	owner.click(`[data-person="` + wren.Email + `"] button`)
	owner.untilSays("the last owner stays")
}

// A forgotten password: the same words for every address, a letter for one, once.
func TestAForgottenPasswordIsSetByLetter(t *testing.T) {
	a := start(t)
	p := a.open(t, laptop, "/")
	p.until(`document.querySelector('.signin_door .pose_pose')`)
	p.clickText("Forgotten the password?")
	p.untilSays("Send me a letter")
	p.typeInto(`#email`, jory.Email)
	p.press("Send me a letter")
	p.untilSays("If somebody signs in with")
	link := a.letter(t, jory.Email, 1)
	p.do(chromedp.Navigate(a.url + link))
	p.until(`document.querySelector('#password')`)
	p.typeInto(`#password`, "short")
	p.press("Set it")
	p.untilSays("at least 12 characters")
	p.typeInto(`#password`, quiet)
	p.press("Set it")
	p.untilSays("every sign-in with the old one is over")
	p.do(chromedp.Navigate(a.url + link))
	p.untilSays("this link was used already")
	p.clickText("To signing in")
	p.typeInto(`#email`, jory.Email)
	p.typeInto(`#password`, quiet)
	p.press("Sign in")
	p.until(`document.querySelector('.today_today')`)
	assert.NotContains(t, p.text("nav"), "People", "an assistant sees no people")
}
