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
account-began = Signed in { $a }
account-used-today = Used within a day
account-used =
    { $n ->
        [one] Last used a day ago
       *[other] Last used { $n } days ago
    }
account-end = End
account-end-others = End all others
ago-now = less than an hour ago
ago-hours =
    { $n ->
        [one] 1 hour ago
       *[other] { $n } hours ago
    }
ago-days =
    { $n ->
        [one] 1 day ago
       *[other] { $n } days ago
    }
