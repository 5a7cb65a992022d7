# Sourced by script/demo and script/test: installs what is missing, once, and says plainly what it cannot do.
# Everything is stamped with a hash of its lock file or sources, so a second start does nothing here.

fail() {
	printf 'ruvak: %s\n' "$*" >&2
	exit 1
}

hash_of() { cat -- "$@" | sha256sum | cut -c1-16; }

# done_already STAMP HASH: whether this step was finished for exactly these inputs.
done_already() { [ -f "$1" ] && [ "$(cat "$1")" = "$2" ]; }

check_place() {
	mkdir -p .ruvak 2>/dev/null && : 2>/dev/null >.ruvak/.writable ||
		fail "$PWD cannot be written (read-only disk, or somebody else's folder). Use a checkout of your own."
	local free_kb
	free_kb=$(df -Pk . | awk 'NR == 2 { print $4 }')
	[ "$free_kb" -ge "${RUVAK_NEEDED_KB:-300000}" ] ||
		fail "the disk is nearly full: $((free_kb / 1024)) MB left at $PWD, $((${RUVAK_NEEDED_KB:-300000} / 1024)) MB needed. Free some space and start again."
}

as_root() {
	if [ "$(id -u)" -eq 0 ]; then
		"$@"
	elif command -v sudo >/dev/null; then
		sudo "$@"
	else
		fail "this needs Debian packages and there is no sudo. As root, run: apt-get install ${*: -1}"
	fi
}

apt_updated=
apt_need() { # apt_need PACKAGE...
	if [ -z "$apt_updated" ]; then
		as_root apt-get update -qq >.ruvak/apt.log 2>&1 || fail "apt-get update failed; see .ruvak/apt.log. Is there a network?"
		apt_updated=1
	fi
	printf 'Installing %s…\n' "$*"
	as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >>.ruvak/apt.log 2>&1 ||
		fail "apt-get could not install $*; see .ruvak/apt.log."
}

unpack_nginx() { # out of its package and not installed: that would start a web server of the machine's own
	printf 'Fetching nginx…\n'
	fetch_nginx || { as_root apt-get update -qq >>.ruvak/apt.log 2>&1 && fetch_nginx; } ||
		fail "nginx could not be fetched for the tests; see .ruvak/apt.log."
}

fetch_nginx() { (cd .ruvak && apt-get download -qq nginx && dpkg-deb -x nginx_*.deb nginx && rm nginx_*.deb) >>.ruvak/apt.log 2>&1; }

need_programs() { # need_programs run|test
	command -v python3 >/dev/null || apt_need python3
	python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' || fail "Python 3.11 or newer is needed; this is $(python3 --version)."
	python3 -c 'import ensurepip, venv' 2>/dev/null || apt_need python3-venv
	command -v node >/dev/null && command -v npm >/dev/null || apt_need nodejs npm
	node -e 'const [a, b] = process.versions.node.split("."); process.exit(a > 20 || (a == 20 && b >= 19) ? 0 : 1)' ||
		fail "Node.js 20.19 or newer is needed to build the interface; this is $(node --version)."
	ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || apt_need postgresql
	if [ "$1" = test ]; then
		# The shell without windows is quicker; a Debian that does not have it has the whole browser.
		[ -x /usr/bin/chromium-headless-shell ] || (apt_need chromium-headless-shell) >/dev/null 2>&1 ||
			[ -x /usr/bin/chromium ] || apt_need chromium
		[ -x /usr/bin/ngspice ] || apt_need ngspice
		[ -x .ruvak/nginx/usr/sbin/nginx ] || command -v nginx >/dev/null || [ -x /usr/sbin/nginx ] || unpack_nginx
	fi
}

python_packages() { # python_packages run|dev
	local stamp=.venv/.ruvak-stamp hash
	hash="$1-$(hash_of requirements/uv.lock "requirements/$1.lock")"
	done_already "$stamp" "$hash" && return
	# The full set serves for running too; do not take the test tools away again.
	if [ "$1" = run ] && done_already "$stamp" "dev-$(hash_of requirements/uv.lock requirements/dev.lock)"; then return; fi
	printf 'Installing the Python packages…\n'
	[ -x .venv/bin/python ] || python3 -m venv .venv
	.venv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r requirements/uv.lock >.ruvak/pip.log 2>&1 &&
		.venv/bin/uv pip sync -q --require-hashes "requirements/$1.lock" >>.ruvak/pip.log 2>&1 ||
		fail "the Python packages could not be installed; see .ruvak/pip.log."
	printf '%s' "$hash" >"$stamp"
}

# Every process that starts would compile what it imports anew where Python is told to write no bytecode: 8 s and not 2.
# What the server imports is compiled here, once and not by several processes that start side by side; compiling every
# package whole would take a minute of processor time.
unset PYTHONDONTWRITEBYTECODE
compile_used() {
	.venv/bin/python -m compileall -q ruvak script tests >/dev/null || true
	.venv/bin/python -c 'import ruvak.web.app' || fail "the server cannot be imported: its Python packages are damaged. Remove the folder .venv and start again."
}

interface_sources() { git ls-files -co --exclude-standard frontend 2>/dev/null | grep -v '\.test\.ts$' || find frontend -path frontend/node_modules -prune -o -type f -print; }

interface() {
	local hash
	hash=$(hash_of frontend/package-lock.json)
	if ! done_already frontend/node_modules/.ruvak-stamp "$hash"; then
		printf 'Installing the interface packages…\n'
		(cd frontend && npm ci --no-audit --no-fund) >.ruvak/npm.log 2>&1 || fail "npm ci failed; see .ruvak/npm.log."
		printf '%s' "$hash" >frontend/node_modules/.ruvak-stamp
	fi
	hash=$(interface_sources | sort | xargs cat 2>/dev/null | sha256sum | cut -c1-16)
	if ! done_already ruvak/web/static/.ruvak-stamp "$hash"; then
		printf 'Building the interface…\n'
		(cd frontend && npm run --silent build) >.ruvak/build.log 2>&1 || fail "the interface did not build; see .ruvak/build.log."
		printf '%s' "$hash" >ruvak/web/static/.ruvak-stamp
	fi
}

set_up() { # set_up run|dev
	check_place
	need_programs "$([ "$1" = dev ] && echo test || echo run)"
	interface &
	local building=$!
	python_packages "$1"
	compile_used
	wait "$building" || exit 1
}
