"""The rules and the computation of the trade: no web, no database, no logging in here."""
