# Read by ./demo and ./check: installs the packages that are missing, and builds.

# install_packages [FURTHER…]: installs what packages.txt names, and what else is asked for, if the machine lacks it.
install_packages() {
    local missing=() package
    for package in "$@"; do
        dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q '^install ok installed$' || missing+=("$package")
    done
    while read -r package; do
        case "$package" in "" | \#*) continue ;; esac
        dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q '^install ok installed$' || missing+=("$package")
    done < packages.txt
    [ ${#missing[@]} -eq 0 ] && return 0
    echo "Installing: ${missing[*]}"
    local as_root=()
    if [ "$(id -u)" -ne 0 ]; then as_root=(sudo); fi
    "${as_root[@]}" apt-get update -qq
    "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" > /dev/null
}

# build FOLDER [CMAKE-OPTION…] -- TARGET…: configures and builds with Ninja. Everybody builds with the same flags, so
# that ./demo and ./check use each other's objects.
build() {
    local folder=$1 options=()
    shift
    while [ "$1" != -- ]; do
        options+=("$1")
        shift
    done
    shift
    cmake -S . -B "$folder" -G Ninja -DCOULTER_WERROR=ON -DCOULTER_TESTS=ON "${options[@]}" > "$folder.log" 2>&1 ||
        { cat "$folder.log"; rm -f "$folder.log"; return 1; }
    rm -f "$folder.log"
    ninja -C "$folder" "$@"
}
