# Starts and stops the parts of Cellarium; sourced by ./start, ./stop and ./test.
# All that is started is a process group of its own, with its number in $VAR/run/NAME.pid.

say() { printf '%s\n' "$*"; }
die() { printf '%s\n' "$*" >&2; exit 1; }

# setting NAME [DEFAULT]: from the environment, else from .env
setting() {
    local value="${!1-}"
    if [ -z "$value" ] && [ -f "$ROOT/.env" ]; then
        value=$(sed -n "s/^$1=//p" "$ROOT/.env" | tail -n 1 | sed 's/^"\(.*\)"$/\1/')
    fi
    printf '%s' "${value:-${2-}}"
}

# need COMMAND-THAT-SUCCEEDS-IF-PRESENT PACKAGE...: collects what is missing in $MISSING
MISSING=""
need() {
    local probe="$1"; shift
    eval "$probe" >/dev/null 2>&1 || MISSING="$MISSING $*"
}

need_for_running() {
    need 'command -v php' php8.2-cli
    local have; have=$(php -m 2>/dev/null || true)
    local extension
    for extension in curl gmp intl mbstring mysql xml zip; do
        local module=$extension
        [ "$extension" = mysql ] && module=pdo_mysql
        need "grep -qix '$module' <<<'$have'" "php8.2-$extension"
    done
    need 'command -v php-cgi' php8.2-cgi
    need 'test -x /usr/sbin/php-fpm8.2' php8.2-fpm
    need 'command -v composer' composer
    need 'command -v unzip' unzip
    need 'command -v xz' xz-utils
    need 'command -v mariadbd || test -x /usr/sbin/mariadbd' mariadb-server
    need 'command -v setsid' util-linux
    need 'test -x /usr/sbin/nginx' nginx-light
    need 'command -v curl' curl
    need 'test -x /usr/sbin/sshd' openssh-server
    need 'ls /usr/lib/*/libnss_wrapper.so' libnss-wrapper
}

install_missing() {
    [ -z "$MISSING" ] && return 0
    if [ "$(id -u)" != 0 ]; then
        die 'Missing Debian packages. Run this first, then try again:'$'\n'\
"sudo apt-get install -y --no-install-recommends$MISSING"
    fi
    say "Installing from Debian:$MISSING"
    local log; log=$(mktemp)
    export DEBIAN_FRONTEND=noninteractive
    # None of the packages' own services is wanted: they are not started now, nor at the next start of the machine.
    local policy=/usr/sbin/policy-rc.d mine=no
    [ -e "$policy" ] || { printf '#!/bin/sh\nexit 101\n' >"$policy" && chmod 755 "$policy" && mine=yes; }
    # shellcheck disable=SC2086
    if ! { apt-get update -qq && apt-get install -y -qq --no-install-recommends $MISSING; } >"$log" 2>&1; then
        [ "$mine" = no ] || rm -f "$policy"
        tail -n 3 "$log" >&2
        die "Debian packages could not be installed:$MISSING. The lines above say why; $log has all of them."
    fi
    rm -f "$log"
    [ "$mine" = no ] || rm -f "$policy"
    local service
    for service in ssh:openssh-server mariadb:mariadb-server nginx:nginx-light \
        php8.2-fpm:php8.2-fpm; do
        # There may be no systemd here.
        case " $MISSING " in *" ${service#*:} "*) systemctl disable "${service%:*}" >/dev/null 2>&1 || true ;; esac
    done
}

composer_install() {
    if [ ! -f "$ROOT/vendor/autoload.php" ] || [ "$ROOT/composer.json" -nt "$ROOT/vendor/autoload.php" ]; then
        say 'Installing Composer packages'
        local log; log=$(mktemp)
        (cd "$ROOT" && COMPOSER_ALLOW_SUPERUSER=1 composer install --no-interaction --no-progress) >"$log" 2>&1 \
            || { tail -n 5 "$log" >&2; die "Composer packages could not be installed; $log says why."; }
        touch "$ROOT/vendor/autoload.php"
        rm -f "$log"
    fi
}

# php_keeps_compiled DIRECTORY: PHP that is started from here on reads scripts as they were compiled before, as long as
# they are unchanged; commands and workers begin in less than half the time.
php_keeps_compiled() {
    mkdir -p "$1/compiled" && chmod 700 "$1" "$1/compiled" || die "$1 cannot be written to."
    # No command and no worker takes all memory: what it works on is read piece by piece.
    printf '%s\n' 'opcache.enable_cli=1' 'opcache.file_cache_only=1' "opcache.file_cache=\"$1/compiled\"" \
        'memory_limit=1G' >"$1/php.ini"
    export PHP_INI_SCAN_DIR="${PHP_INI_SCAN_DIR-}:$1"
}

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# free_port FROM: the first free port from there
free_port() {
    local port=$1
    while port_taken "$port"; do port=$((port + 1)); done
    printf '%s' "$port"
}

# wait_for SECONDS WHAT COMMAND...
wait_for() {
    local tenths=$(($1 * 10)) what="$2"; shift 2
    until "$@" >/dev/null 2>&1; do
        tenths=$((tenths - 1))
        [ "$tenths" -gt 0 ] || die "$what did not come up. Its log is in $VAR/log."
        sleep 0.1
    done
}

# began PID: when a process began, in ticks since the machine did; nothing for one that is gone or only waits to be
# buried
began() { sed 's/^.*) //' "/proc/$1/stat" 2>/dev/null | awk '$1 != "Z" {print $20}'; }

# group_lives PGID: whether any process of a group is alive
group_lives() {
    # Not a pipe into awk: with pipefail, a process that ends while it is looked at would make it "no".
    awk -v group="$1" '$3 == group && $1 != "Z" {found = 1} END {exit !found}' \
        < <(cat /proc/[0-9]*/stat 2>/dev/null | sed 's/^.*) //')
}

# running NAME: by number and beginning, since numbers are given out again
running() {
    local pid start now
    read -r pid start 2>/dev/null <"$VAR/run/$1.pid" || [ -n "${pid-}" ] || return 1
    now=$(began "$pid")
    if [ -n "$now" ]; then [ "$now" = "$start" ]; else group_lives "$pid"; fi
}

# launch NAME COMMAND...: in the background, in a process group of its own
launch() {
    local name="$1"; shift
    mkdir -p "$VAR/run" "$VAR/log" || die "$VAR cannot be written to."
    # For their owner only: logs name clients, hosts and logins.
    (umask 077; : >>"$VAR/log/$name.log")
    chmod 600 "$VAR/log/$name.log"
    setsid "$@" >>"$VAR/log/$name.log" 2>&1 </dev/null &
    printf '%s %s\n' "$!" "$(began "$!")" >"$VAR/run/$name.pid"
}

# end NAME: its whole process group, politely, then not
end() {
    local file="$VAR/run/$1.pid" pid
    [ -f "$file" ] || return 0
    if running "$1"; then
        read -r pid _ <"$file"
        kill -TERM -- "-$pid" 2>/dev/null || kill -TERM "$pid" 2>/dev/null || true
        local tenths=150
        while group_lives "$pid" && [ "$tenths" -gt 0 ]; do sleep 0.1; tenths=$((tenths - 1)); done
        kill -KILL -- "-$pid" 2>/dev/null || true
    fi
    rm -f "$file"
}

# end_at_once NAME...: told together, so that all of them take as long as the slowest
end_at_once() {
    local name pid
    for name in "$@"; do
        ! running "$name" || { read -r pid _ <"$VAR/run/$name.pid" && kill -TERM -- "-$pid" 2>/dev/null; } || true
    done
    for name in "$@"; do end "$name"; done
}

end_all() {
    local name workers=()
    for name in "$VAR"/run/worker-*.pid; do
        [ ! -f "$name" ] || workers+=("$(basename "$name" .pid)")
    done
    end_at_once scheduler "${workers[@]}"
    for name in web pages ssh standin mariadb; do end "$name"; done
}

mariadb_socket() {
    local path="$VAR/mariadb.sock"
    # A socket's path may have 107 bytes at the most.
    if [ "${#path}" -le 100 ]; then
        printf '%s' "$path"
    else
        printf '/tmp/cellarium-%s.sock' "$(printf '%s' "$path" | cksum | cut -d' ' -f1)"
    fi
}

mariadb_up() {
    running mariadb && return 0
    local port user as=() data="$VAR/mariadb" socket
    port=$(setting DB_PORT); user=$(id -un); socket=$(mariadb_socket)
    [ "$(id -u)" = 0 ] && as=(--user=root)
    port_taken "$port" && die "Port $port is taken, MariaDB needs it. Set DB_PORT in .env to a free one."
    export PATH="$PATH:/usr/sbin"
    if [ ! -d "$data/mysql" ]; then
        # Beside, and given its name once it is whole: half of it would be taken for all by the next start.
        rm -rf "$data.new"
        mkdir -p "$data.new" "$VAR/log" || die "$data.new cannot be written to."
        mariadb-install-db --no-defaults "${as[@]}" --datadir="$data.new" --auth-root-authentication-method=socket \
            --auth-root-socket-user="$user" --skip-test-db >"$VAR/log/mariadb-install.log" 2>&1 \
            || die "MariaDB's data could not be laid in $data; $VAR/log/mariadb-install.log says why."
        rm -rf "$data" && mv "$data.new" "$data" || die "$data cannot be written to."
    fi
    launch mariadb mariadbd --no-defaults "${as[@]}" --datadir="$data" --socket="$socket" \
        --pid-file="$VAR/mariadb.pid" --bind-address=127.0.0.1 --port="$port" --skip-name-resolve \
        --character-set-server=utf8mb4 --collation-server=utf8mb4_bin \
        --innodb-buffer-pool-size=128M --innodb-flush-log-at-trx-commit="${MARIADB_FLUSH:-1}" \
        --lock-wait-timeout=120 # Seconds; a table that something holds would be waited for for a day.
    wait_for 60 MariaDB mariadb-admin --no-defaults --socket="$socket" ping
}

# settings_file: .env is there, whole, and for its owner only. What people have set stays; what is empty or missing, and
# is made here, is filled in.
settings_file() {
    [ -f "$ROOT/.env" ] || (umask 077; cp "$ROOT/.env.example" "$ROOT/.env") \
        || die 'The settings file .env cannot be written.'
    chmod 600 "$ROOT/.env" 2>/dev/null || true
    if [ -z "$(setting APP_KEY)" ]; then
        local var; var=$(setting CELLARIUM_VAR var)
        case "$var" in /*) ;; *) var="$ROOT/$var" ;; esac
        # Another key would make every stored password unreadable, and the record another's.
        [ ! -d "$var/mariadb/mysql" ] \
            || die 'APP_KEY in .env is empty, and the database is sealed with the one that was.' \
            'Nothing was started. Put it back, from a backup of Cellarium itself or of .env.'
        fill_setting APP_KEY "base64:$(head -c 32 /dev/urandom | base64)"
    fi
    [ -n "$(setting DB_PASSWORD)" ] || fill_setting DB_PASSWORD "$(php -r 'echo bin2hex(random_bytes(16));')"
    [ -n "$(setting DB_BACKUP_USERNAME)" ] || fill_setting DB_BACKUP_USERNAME cellarium_backup
    [ -n "$(setting DB_BACKUP_PASSWORD)" ] \
        || fill_setting DB_BACKUP_PASSWORD "$(php -r 'echo bin2hex(random_bytes(16));')"
}

# fill_setting NAME VALUE: in .env, whole or not at all
fill_setting() {
    local file="$ROOT/.env"
    (umask 077; NAME="$1" VALUE="$2" awk '
        index($0, ENVIRON["NAME"] "=") == 1 { print ENVIRON["NAME"] "=" ENVIRON["VALUE"]; found = 1; next }
        { print }
        END { if (!found) print ENVIRON["NAME"] "=" ENVIRON["VALUE"] }' "$file" >"$file.new") \
        && mv "$file.new" "$file" || die "The settings file .env cannot be written."
}

# What belongs to the world that Cellarium works in, below $VAR; logs, compiled files and the database are not among it.
DATA='contents backups manifests runs keys'

# lay_bare: nothing of what was is there any more, but for the database, which drop_databases sees to
lay_bare() {
    local name
    for name in standin locks demo laid arriving spool $DATA; do rm -rf "${VAR:?}/$name"; done
    rm -f "$VAR/.cellarium-mark"
    identity_anew
}

drop_databases() {
    mariadb --no-defaults --socket="$(mariadb_socket)" -e "DROP DATABASE IF EXISTS \`$(setting DB_DATABASE)\`"
}

# identity_anew: a new installation; marks first, so that a start that ends in between begins anew
identity_anew() {
    local identity; identity=${CELLARIUM_IDENTITY:-$(php -r 'echo bin2hex(random_bytes(16));')}
    CELLARIUM_IDENTITY="$identity" php "$ROOT/artisan" cellarium:marks --lay --quiet \
        || die "The directories in $VAR cannot be marked as this installation's own."
    [ -n "${CELLARIUM_IDENTITY-}" ] || fill_setting CELLARIUM_IDENTITY "$identity"
}

# is_new: whether nothing lies in $VAR that somebody may need, and no database
is_new() { [ ! -d "$VAR/mariadb/mysql" ] && ! has_data; }

# has_data: whether lists, contents or keys lie in $VAR
has_data() {
    local name
    for name in $DATA; do
        [ -z "$(find "$VAR/$name" -type f ! -name .cellarium-mark ! -name 'record-end.json*' -print -quit \
            2>/dev/null)" ] || return 0
    done
    return 1
}

# own_directories: the marks are looked at before there is a database, which would be laid anew in an empty directory
own_directories() {
    if [ -n "$(setting CELLARIUM_IDENTITY)" ]; then
        php "$ROOT/artisan" cellarium:marks --starting || die 'Nothing was started.'
        # One that is laid anew beside them would know nothing of them.
        [ -d "$VAR/mariadb/mysql" ] || ! has_data || die \
            "The database is not in $VAR/mariadb, though lists and contents of this installation lie beside it." \
            'Nothing was started. Mount its disk or put it back; if it is lost, move backups, manifests, runs, keys' \
            "out of $VAR and bring all of it back from Cellarium's own backup: bin/bring-back."
    elif is_new; then
        : >"$VAR/laying" || die "$VAR cannot be written to."
        identity_anew
    fi
}

# own_directories_of_old: an installation that is older than marks gets them where database and lists agree
own_directories_of_old() {
    [ -z "$(setting CELLARIUM_IDENTITY)" ] || return 0
    local identity; identity=$(php -r 'echo bin2hex(random_bytes(16));')
    CELLARIUM_IDENTITY="$identity" php "$ROOT/artisan" cellarium:marks --adopt --quiet || die 'Nothing was started.'
    fill_setting CELLARIUM_IDENTITY "$identity"
}

# schema_up NAME: the database has the schema that this version works with; what an earlier one left is brought up,
# after a copy of it was written, and what fails or is killed goes back to that
schema_up() {
    local copy="$VAR/before-migration.sql" own=(--no-defaults --socket="$(mariadb_socket)")
    if [ -f "$VAR/migrating" ]; then
        say 'Bringing the database up was broken off: it goes back to what it was, and is brought up again'
        schema_back "$1"
    fi
    database "$1"
    local state; state=$(php "$ROOT/artisan" cellarium:schema --starting) || die "$state" 'Nothing was started.'
    [ "$state" != current ] || return 0
    if [ "$state" = behind ]; then
        (umask 077; mariadb-dump "${own[@]}" --single-transaction --hex-blob --add-drop-table "$1" >"$copy") \
            || die "A copy of the database could not be written to $copy. Nothing was changed; make room there."
        : >"$VAR/migrating"
        say 'Bringing the database up to this version'
    fi
    if ! php "$ROOT/artisan" migrate --force --quiet; then
        [ "$state" != behind ] || schema_back "$1"
        die "The database could not be brought up to this version, and is as it was. $VAR/storage/logs says why."
    fi
    rm -f "$VAR/migrating"
}

schema_back() {
    local own=(--no-defaults --socket="$(mariadb_socket)")
    mariadb "${own[@]}" -e "DROP DATABASE IF EXISTS \`$1\`; CREATE DATABASE \`$1\`" \
        && mariadb "${own[@]}" "$1" <"$VAR/before-migration.sql" \
        || die "The database could not be put back from $VAR/before-migration.sql, which holds all of it."
    rm -f "$VAR/migrating"
}

# demo_world: laid once, where nothing else was laid or brought back
demo_world() {
    local clients; clients=$(mariadb --no-defaults --socket="$(mariadb_socket)" -N \
        -e 'SELECT COUNT(*) FROM people' "$(setting DB_DATABASE)") || die 'The database does not answer.'
    if [ ! -f "$VAR/laying" ] && { [ -f "$VAR/laid" ] || [ "$clients" != 0 ]; }; then
        [ -f "$VAR/standin/world.json" ] || standin_lay
        standin_up
        return 0
    fi
    : >"$VAR/laying" || die "$VAR cannot be written to."
    standin_lay
    standin_up
    say 'Laying the demo world: deployments and backups are really made, which takes a moment'
    php "$ROOT/artisan" db:seed --force --quiet \
        || die "The demo world could not be laid; the lines above and $VAR/storage/logs say why."
    mv "$VAR/laying" "$VAR/laid"
}

# database NAME: made if it is not there, open to the user of the settings
database() {
    local user password
    user=$(setting DB_USERNAME); password=$(setting DB_PASSWORD)
    mariadb --no-defaults --socket="$(mariadb_socket)" >/dev/null <<SQL || die "The database $1 could not be made."
CREATE DATABASE IF NOT EXISTS \`$1\`;
CREATE USER IF NOT EXISTS '$user'@'127.0.0.1' IDENTIFIED BY '$password';
ALTER USER '$user'@'127.0.0.1' IDENTIFIED BY '$password';
GRANT ALL ON \`$1\`.* TO '$user'@'127.0.0.1';
SQL
}

# narrow NAME: the user of the settings keeps what running needs. The record can be written and read by it, and neither
# changed nor removed; it cannot change tables either: ./start does that before.
narrow() {
    local user table may own; user=$(setting DB_USERNAME); own=(mariadb --no-defaults --socket="$(mariadb_socket)")
    {
        printf "REVOKE ALL PRIVILEGES ON \`%s\`.* FROM '%s'@'127.0.0.1';\n" "$1" "$user"
        "${own[@]}" -N -e "SELECT table_name FROM information_schema.tables WHERE table_schema = '$1'" \
            | while read -r table; do
                case "$table" in
                    record_entries) may='SELECT, INSERT' ;;
                    record_ends) may='SELECT, INSERT, UPDATE' ;;
                    *) may='SELECT, INSERT, UPDATE, DELETE' ;;
                esac
                printf "GRANT %s ON \`%s\`.\`%s\` TO '%s'@'127.0.0.1';\n" "$may" "$1" "$table" "$user"
            done
    } | "${own[@]}" >/dev/null || die "What the database's user may do in $1 could not be set."
}

# backup_user NAME: reads all of a database to write it out, triggers included, and has one beside it to bring that back
# into, as a rehearsal
backup_user() {
    local user password; user=$(setting DB_BACKUP_USERNAME cellarium_backup); password=$(setting DB_BACKUP_PASSWORD)
    mariadb --no-defaults --socket="$(mariadb_socket)" >/dev/null <<SQL || die "The user $user could not be made."
CREATE USER IF NOT EXISTS '$user'@'127.0.0.1' IDENTIFIED BY '$password';
ALTER USER '$user'@'127.0.0.1' IDENTIFIED BY '$password';
GRANT SELECT, TRIGGER, LOCK TABLES ON \`$1\`.* TO '$user'@'127.0.0.1';
GRANT ALL ON \`${1}_rehearsal\`.* TO '$user'@'127.0.0.1';
SQL
}

standin_lay() {
    php "$ROOT/demo/build.php" "$VAR/demo" \
        && php "$ROOT/standin/bin/standin" lay --dir "$VAR/standin" --world "$ROOT/demo/world.json" \
            --content "$VAR/demo/content" >/dev/null \
        || die 'The demo world could not be laid.'
    php -r '
        foreach (json_decode(file_get_contents($argv[1]), true)["accounts"] as $account) {
            $names[$account["host"]] = true;
            foreach ($account["sites"] as $site) { $names[$site["domain"]] = true; }
        }
        $names["rehearsal.example"] = true; // A document root of its own, for rehearsals.
        echo "# Names of the demo world, in the form of hosts(5)\n127.0.0.1 ", implode(" ", array_keys($names)), "\n";
    ' "$ROOT/demo/world.json" >"$VAR/hosts"
}

standin_up() {
    running standin && return 0
    local name port
    for name in FTP WEB CONTROL; do
        port=$(setting "CELLARIUM_STANDIN_${name}_PORT")
        port_taken "$port" && die "Port $port is taken, the stand-in host needs it." \
            "Set CELLARIUM_STANDIN_${name}_PORT in .env to a free one."
    done
    launch standin php "$ROOT/standin/bin/standin" serve --dir "$VAR/standin" \
        --ftp-port "$(setting CELLARIUM_STANDIN_FTP_PORT)" \
        --web-port "$(setting CELLARIUM_STANDIN_WEB_PORT)" --control-port "$(setting CELLARIUM_STANDIN_CONTROL_PORT)"
    wait_for 20 'The stand-in host' port_taken "$(setting CELLARIUM_STANDIN_CONTROL_PORT)"
    local ssh; ssh=$(setting CELLARIUM_STANDIN_SSH_PORT 2222)
    port_taken "$ssh" && die "Port $ssh is taken, the stand-in host needs it." \
        "Set CELLARIUM_STANDIN_SSH_PORT in .env to a free one."
    launch ssh php "$ROOT/standin/bin/standin" ssh --dir "$VAR/standin" --world "$ROOT/demo/world.json" \
        --ssh-port "$ssh"
    wait_for 20 "The stand-in's SSH server" port_taken "$ssh"
}

answers() { curl -fsS -o /dev/null --max-time 5 "$1"; }

web_up() {
    running web && return 0
    local port sockets user as_root; port=$(setting CELLARIUM_PORT)
    port_taken "$port" && die "Port $port is taken, the web server needs it. Set CELLARIUM_PORT in .env to a free one."
    # A socket's path may have 107 bytes at the most.
    sockets="$VAR/run/php"
    [ "${#sockets}" -le 88 ] || sockets="/tmp/cellarium-$(printf '%s' "$VAR" | cksum | cut -d' ' -f1)"
    # Files here are their owner's alone: processes are started as the one who starts them.
    user='' as_root=''
    if [ "$(id -u)" = 0 ]; then user="user = $(id -un)"$'\n'"group = $(id -gn)" as_root=--allow-to-run-as-root; fi
    # Compiled once, for the pages only: what a page offers is asked of the routes, many times each page.
    local routes="$VAR/routes.php"
    APP_ROUTES_CACHE="$routes" php "$ROOT/artisan" route:cache --quiet || die 'The routes could not be compiled.'
    local settings; settings=$(<"$ROOT/bin/php-fpm.conf")
    settings=${settings//@VAR@/$VAR} settings=${settings//@SOCKETS@/$sockets} settings=${settings//@USER@/$user}
    mkdir -p "$VAR/run" "$VAR/uploads" && printf '%s\n' "$settings" >"$VAR/php-fpm.conf" \
        || die "$VAR cannot be written to."
    rm -f "$sockets-pages.sock" "$sockets-transfers.sock"
    # shellcheck disable=SC2086 # one word or none
    APP_ROUTES_CACHE="$routes" launch pages /usr/sbin/php-fpm8.2 --nodaemonize --fpm-config "$VAR/php-fpm.conf" \
        -d opcache.file_cache_only=0 $as_root
    wait_for 30 'The server of the pages' test -S "$sockets-transfers.sock"
    local proxy real_ip='' by_proxy=''
    for proxy in $(setting CELLARIUM_TRUSTED_PROXIES | tr ',' ' '); do
        [[ "$proxy" =~ ^[0-9a-fA-F.:]+(/[0-9]{1,3})?$ ]] \
            || die "CELLARIUM_TRUSTED_PROXIES holds $proxy, which is neither an address nor a network."
        real_ip="$real_ip set_real_ip_from $proxy;" by_proxy="$by_proxy $proxy 1;"
    done
    sed "s|@VAR@|$VAR|g; s|@ROOT@|$ROOT|g; s|@PORT@|$port|g; s|@SOCKETS@|$sockets|g
        s|@REAL_IP@|$real_ip|; s|@BY_PROXY@|$by_proxy|" "$ROOT/bin/nginx.conf" >"$VAR/nginx.conf"
    sed "s|@ROOT@|$ROOT|g; s|@VAR@|$VAR|g" "$ROOT/bin/fastcgi.conf" >"$VAR/fastcgi.conf"
    [ "$(id -u)" != 0 ] || sed -i "1i user $(id -un) $(id -gn);" "$VAR/nginx.conf"
    launch web /usr/sbin/nginx -e stderr -p "$VAR" -c "$VAR/nginx.conf"
    wait_for 30 'The web server' answers "http://127.0.0.1:$port/sign-in"
}

workers_up() {
    local number queue all; all=$(setting CELLARIUM_WORKERS 12)
    [[ "$all" =~ ^[1-9][0-9]{0,2}$ ]] || die "CELLARIUM_WORKERS is $all, which is no number of workers."
    for number in $(seq 0 "$all"); do
        # Which of them does what is said by core/Work/FairShare.php; the first closes FTP users and nothing else.
        queue=any
        [ "$number" != 0 ] || queue=closing
        # A worker that was killed is followed by another.
        running "worker-$number" || CELLARIUM_WORKER=$((number + 1)) launch "worker-$number" \
            bash "$ROOT/bin/worker.sh" "$ROOT" "$queue" "$(setting DB_HOST 127.0.0.1)" "$(setting DB_PORT)"
    done
    running scheduler || launch scheduler php "$ROOT/artisan" schedule:work --quiet
}
