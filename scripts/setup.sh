# Read by the other scripts: what they share. Installs what is missing, configures, builds.

cd "$(dirname "${BASH_SOURCE[0]}")/.." || exit 1

wanted_packages() { sed 's/#.*//' scripts/packages.txt | awk 'NF { print $1 }'; }

missing_packages() {
  for package in $(wanted_packages); do
    dpkg-query -W -f='${db:Status-Status}' "$package" 2>/dev/null | grep -qx installed || echo "$package"
  done
}

install_missing() {
  local missing as_root=()
  missing=$(missing_packages)
  [ -n "$missing" ] || return 0
  echo "Installing:" $missing
  [ "$(id -u)" -eq 0 ] || as_root=(sudo)
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive \
    apt-get install -y -qq --no-install-recommends $missing >/dev/null
}

# build PRESET [TARGET...]
build() {
  local preset=$1
  shift
  cmake --preset "$preset" >/dev/null
  cmake --build --preset "$preset" ${1:+--target "$@"}
}
