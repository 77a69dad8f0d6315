# Sourced by start and test: a Node.js that is new enough, and the npm packages of the lock file.
if ! command -v node >/dev/null 2>&1; then
	echo "Node.js is missing. Install version 20.19 or newer and start again." >&2
	exit 1
fi
if ! node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)'; then
	echo "Node.js $(node --version) is too old: 20.19 or newer is needed." >&2
	exit 1
fi
if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
	echo "Installing npm packages …"
	trap 'echo; echo "Stopped while the npm packages were being installed. Start again; they are then installed anew." >&2; exit 130' INT TERM HUP
	if ! npm ci --no-audit --no-fund --loglevel=error; then
		echo "The npm packages could not be installed. Is the disk full, is there a right to write here, does the registry answer?" >&2
		exit 1
	fi
	trap - INT TERM HUP
	touch node_modules/.package-lock.json
fi
# the compiler's settings, by which imports of the core are found, build on a file that a fresh clone does not have yet
[ -f .svelte-kit/tsconfig.json ] || node node_modules/@sveltejs/kit/svelte-kit.js sync
