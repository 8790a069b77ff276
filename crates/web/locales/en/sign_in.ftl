sign-in-title = Sign in
sign-in-email = E-mail
sign-in-password = Password
sign-in-go = Sign in
sign-out = Sign out
sign-in-wrong = Address and password do not belong together.
sign-in-wait = Too many tries with this address. Wait a quarter of an hour.
