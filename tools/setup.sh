# SPDX-FileCopyrightText: 2026 The Rollcall makers
# SPDX-License-Identifier: GPL-3.0-or-later
# Sourced by ./run and ./check: says what it does, installs what is missing, configures and builds.

say() { printf 'rollcall: %s\n' "$*"; }
stop() { printf 'rollcall: %s\n' "$*" >&2; exit 1; }

# Debian packages that building needs; the tests need no more.
packages=(g++ cmake ninja-build ccache mold qt6-base-dev libqt6sql6-sqlite qt6-svg-dev qt6-serialport-dev qt6-multimedia-dev qt6-speech-dev qt6-speech-flite-plugin qt6-declarative-dev libgl-dev qt6-image-formats-plugins libfmt-dev libboost-dev libeigen3-dev libcsv-dev libxlsxwriter-dev libzip-dev libqrencode-dev libsqlite3-dev zlib1g-dev)

install_missing() {
    command -v dpkg-query >/dev/null || stop "this is not Debian; install by hand: ${packages[*]}"
    local missing=() package
    for package in "${packages[@]}"; do
        [ "$(dpkg-query -W -f '${db:Status-Status}' "$package" 2>/dev/null)" = installed ] || missing+=("$package")
    done
    if [ ${#missing[@]} -eq 0 ]; then return 0; fi
    local root=()
    if [ "$(id -u)" -ne 0 ]; then
        command -v sudo >/dev/null || stop "these packages are missing and there is no sudo to install them: ${missing[*]}"
        root=(sudo)
    fi
    say "installing Debian packages: ${missing[*]}"
    "${root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get update -q || stop "the package lists could not be read (apt-get update)"
    "${root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -q -y --no-install-recommends "${missing[@]}" \
        || stop "the packages could not be installed: ${missing[*]}"
}

# build PRESET [TARGET...]
build() {
    local preset=$1
    shift
    say "configuring (build/$preset)"
    cmake --preset "$preset" --log-level=WARNING >/dev/null || stop "configuring failed"
    say "building"
    cmake --build --preset "$preset" ${1:+--target "$@"} || stop "building failed"
}
