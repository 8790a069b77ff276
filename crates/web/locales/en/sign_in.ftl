sign-in-title = Sign in
sign-in-email = E-mail
sign-in-password = Password
sign-in-go = Sign in
sign-out = Sign out
sign-in-wrong = Wrong e-mail or password.
sign-in-wait = Too many attempts. Try again in 15 minutes.
