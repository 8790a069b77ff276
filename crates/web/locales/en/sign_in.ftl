sign-in-title = Sign in
sign-in-email = E-mail
sign-in-password = Password
sign-in-go = Sign in
sign-out = Sign out
sign-in-wrong = Wrong e-mail or password.
sign-in-wait =
    { $n ->
        [one] Too many attempts. Try again in a minute.
       *[other] Too many attempts. Try again in { $n } minutes.
    }

## One's own account

account-title = Your account
account-link = Account
account-password-title = Change the password
account-password-sub = Ends every other session of yours.
account-password-changed = The password is changed; every other session has ended.
account-present = Present password
account-new = New password
account-new-hint = 10 to 200 characters. A few words that do not belong together are easy to keep in mind.
account-again = New password again
account-change = Change password
account-again-differs = The two new passwords differ.
account-same-password = This is the present password.
account-wrong-password = This is not the present password.
account-length = A password has 10 to 200 characters.
account-sessions = Where you are signed in
account-sessions-sub = A session ends 14 days after its last use.
account-here = This one
account-phone = Phone
account-computer = Computer
account-device = Unknown device
account-began = Signed in { $when }
account-used-today = Used within a day
account-used =
    { $n ->
        [one] Last used a day ago
       *[other] Last used { $n } days ago
    }
account-end = End
account-end-others = End all others
account-people = People, their roles, links to set a password, and how long the log is kept.
account-people-link = Company

## The company and its people

company-title = Company
company-people = People
company-you = you
company-seen-today = Signed in today
company-seen = Last used { $date }
company-link-until = Link to set a password open until { $date }
company-not-signed-in = No session open
company-role = Role
company-role-of = Role of { $person }
company-role-hint = A lead does everything. A technician does everything but this page. A reader changes nothing.
company-set-role = Set role
company-link = Password link
company-leave = Remove
company-last-lead = A company needs a lead. Make somebody else a lead first.
company-add = Add a person
company-add-go = Add
company-name = Name
company-email-taken = This address is in use already.
company-link-title = Give this link to { $person }.
company-link-label = Link to set a password
company-link-text = It works once, within seven days, and is shown only here. The present password works until then.
company-usual = Usual station
company-usual-hint = What the first line of a new worksheet begins with; the lines below begin with the one above.
company-yard = Yard
company-yard-position = Latitude and longitude
company-yard-hint = Where rounds begin and end, as maps copy it: 47.518, -122.248. Today lists visits nearest first.
company-yard-error = This is no position. Example: 47.518, -122.248
company-log = Log of changes
company-keep = Keep changes for
company-keep-hint = Empty keeps them for ever. The newest state of everything always stays.
company-months = months
role-lead = Lead
role-technician = Technician
role-reader = Reader
field-email = An e-mail address, such as name@example.com.

## A link to set a password

set-password-title = Set your password
set-password-text = For { $name }, { $email }. It ends every session of yours.
set-password-go = Set password
set-password-closed-title = This link is closed
set-password-closed-text = It was used already, or its seven days are over. A lead of your company can give you a new one.

## What was typed before a session ended

sign-in-again = Your session has ended before this was saved. Sign in, and what you typed comes back.
resume-title = What you typed is still here
resume-text = Your session had ended, so nothing is saved yet. Save it now?
resume-send = Save it now
resume-discard = Discard it
sent-before-title = This form did something else already
sent-before-text = It was sent before with other content, and that is saved. What you changed since is not. Save it as well?
sent-before-send = Save this too
sent-before-leave = Leave it
