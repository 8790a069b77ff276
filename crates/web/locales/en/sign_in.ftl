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
