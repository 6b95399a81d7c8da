# FTP daemons from Debian for the tests, unpacked and not installed: as packages they exclude each other, and none of
# them may be started by the system. Sourced by ./test.

DAEMON_PACKAGES="vsftpd proftpd-core proftpd-mod-crypto pure-ftpd libwrap0 libcap2
libsodium23 libhiredis0.14 libmemcached11
    libmemcachedutil2 libhashkit2 libpcre2-posix3 libpam-wrapper"

# daemons_fetch DIRECTORY: all of them below DIRECTORY/root, once
daemons_fetch() {
    local directory="$1" log="$1/fetch.log" package
    [ ! -f "$directory/complete" ] || return 0
    say 'Fetching FTP daemons from Debian for the tests'
    rm -rf "$directory"
    mkdir -p "$directory/packages" "$directory/root" || die "$directory cannot be written to."
    # shellcheck disable=SC2086
    if ! (cd "$directory/packages" && apt-get download $DAEMON_PACKAGES) >"$log" 2>&1; then
        [ "$(id -u)" != 0 ] || apt-get update -qq >>"$log" 2>&1
        # shellcheck disable=SC2086
        (cd "$directory/packages" && apt-get download $DAEMON_PACKAGES) >>"$log" 2>&1 \
            || die "The FTP daemons could not be fetched; $log says why. As root, apt-get update may help."
    fi
    for package in "$directory"/packages/*.deb; do
        dpkg-deb -x "$package" "$directory/root" || die "$package could not be unpacked."
    done
    rm -rf "$directory/packages"
    touch "$directory/complete"
}
