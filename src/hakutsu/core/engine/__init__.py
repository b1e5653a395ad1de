"""The engine run: warming up; battery, charging and pack; air-conditioning."""
