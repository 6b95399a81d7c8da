<?php

declare(strict_types=1);

namespace Tests\Support;

/** Letters of makes that no rule was written for, each in two variants: one to look at, one that is only counted. */
final readonly class LetterLayouts
{
    public const COUNT = 16;

    /** By language and fact; what the other layouts do not say, or seldom. */
    public const WORDS = [
        'en' => [
            'host' => ['Hostname', 'FTP address', 'Server name'],
            'login' => ['User', 'User ID', 'FTP login'],
            'password' => ['Initial password', 'FTP pass', 'Password'],
            'port' => ['FTP port', 'Port'],
            'directory' => ['Folder', 'Root directory', 'Path'],
            'domain' => ['Site', 'Main domain'],
            'protocol' => ['Transfer protocol', 'Connection'],
        ],
        'de' => [
            'host' => ['Hostname', 'FTP-Adresse', 'Rechnername'],
            'login' => ['User', 'Benutzerkennung', 'FTP-Login'],
            'password' => ['Initialpasswort', 'FTP-Kennwort', 'Passwort'],
            'port' => ['FTP-Port', 'Port'],
            'directory' => ['Ordner', 'Wurzelverzeichnis', 'Pfad'],
            'domain' => ['Website', 'Hauptdomain'],
            'protocol' => ['Übertragungsprotokoll', 'Verbindung'],
        ],
        'fr' => [
            'host' => ['Hôte FTP', 'Adresse FTP', 'Nom du serveur'],
            'login' => ['Login', 'Identifiant FTP', 'Nom d’utilisateur FTP'],
            'password' => ['Mot de passe initial', 'Code secret', 'Mot de passe'],
            'port' => ['Port FTP', 'Port'],
            'directory' => ['Dossier racine', 'Répertoire racine', 'Chemin'],
            'domain' => ['Site', 'Domaine principal'],
            'protocol' => ['Protocole de transfert', 'Connexion'],
        ],
        'es' => [
            'host' => ['Nombre de host', 'Dirección FTP', 'Host FTP'],
            'login' => ['Login', 'Identificador', 'Nombre de usuario FTP'],
            'password' => ['Contraseña inicial', 'Clave FTP', 'Contraseña'],
            'port' => ['Puerto FTP', 'Puerto'],
            'directory' => ['Directorio raíz', 'Carpeta raíz', 'Ruta'],
            'domain' => ['Sitio', 'Dominio principal'],
            'protocol' => ['Protocolo de transferencia', 'Conexión'],
        ],
        'it' => [
            'host' => ['Hostname', 'Indirizzo FTP', 'Host FTP'],
            'login' => ['Login', 'ID utente', 'Username'],
            'password' => ['Password iniziale', 'Password d’accesso', 'Password'],
            'port' => ['Porta FTP', 'Porta'],
            'directory' => ['Cartella principale', 'Directory', 'Percorso'],
            'domain' => ['Sito', 'Dominio principale'],
            'protocol' => ['Protocollo di trasferimento', 'Connessione'],
        ],
        'nl' => [
            'host' => ['Hostname', 'FTP-adres', 'FTP-host'],
            'login' => ['Login', 'Gebruikers-ID', 'FTP-gebruikersnaam'],
            'password' => ['Eerste wachtwoord', 'Inlogwachtwoord', 'Wachtwoord'],
            'port' => ['FTP-poort', 'Poort'],
            'directory' => ['Hoofdmap', 'Directory', 'Bestandsmap'],
            'domain' => ['Site', 'Hoofddomein'],
            'protocol' => ['Overdrachtsprotocol', 'Verbinding'],
        ],
        'pt' => [
            'host' => ['Hostname', 'Endereço FTP', 'Host FTP'],
            'login' => ['Login', 'ID de utilizador', 'Usuário FTP'],
            'password' => ['Palavra-passe inicial', 'Senha FTP', 'Palavra-passe'],
            'port' => ['Porta FTP', 'Porta'],
            'directory' => ['Diretório raiz', 'Pasta raiz', 'Caminho'],
            'domain' => ['Sítio web', 'Domínio principal'],
            'protocol' => ['Protocolo de transferência', 'Ligação'],
        ],
    ];

    /**
     * By language: a step, a sentence of all, a correction, an old part, a new part, "the same as for the control
     * panel", the panel, hello.
     */
    private const PHRASES = [
        'en' => [
            'Enter %2$s as the %1$s.',
            'You reach the server %1$s (port %2$s, %3$s) as user “%4$s” with the password “%5$s”; the files belong in '
                .'%6$s.',
            'Sorry, I mistyped something. The right %s is:',
            'Old server (switched off, do not use any more)',
            'New server',
            'the same as for the control panel',
            'Control panel',
            'Hello,',
            'Staging',
            'Live',
        ],
        'de' => [
            'Tragen Sie als %1$s ein: %2$s',
            'Sie erreichen den Server %1$s (Port %2$s, %3$s) mit dem Benutzer „%4$s“ und dem Passwort „%5$s“; die '
                .'Dateien gehören nach %6$s.',
            'Entschuldigung, ich habe mich vertippt. Richtig ist %s:',
            'Alter Server (abgeschaltet, bitte nicht mehr benutzen)',
            'Neuer Server',
            'wie beim Kundenmenü',
            'Kundenmenü',
            'Hallo,',
            'Staging',
            'Live',
        ],
        'fr' => [
            'Saisissez %2$s dans le champ %1$s.',
            'Vous accédez au serveur %1$s (port %2$s, %3$s) avec l’utilisateur « %4$s » et le mot de passe « %5$s » ; '
                .'les fichiers vont dans %6$s.',
            'Désolé, une erreur de frappe. Le bon %s :',
            'Ancien serveur (désactivé, ne plus utiliser)',
            'Nouveau serveur',
            'le même que pour l’espace client',
            'Espace client',
            'Bonjour,',
            'Préproduction',
            'Production',
        ],
        'es' => [
            'Escriba %2$s en el campo %1$s.',
            'Acceda al servidor %1$s (puerto %2$s, %3$s) con el usuario «%4$s» y la contraseña «%5$s»; los archivos '
                .'van en %6$s.',
            'Perdón, me equivoqué. El dato correcto, %s:',
            'Servidor antiguo (desactivado, no usar)',
            'Servidor nuevo',
            'la misma que en el panel de control',
            'Panel de control',
            'Hola:',
            'Preproducción',
            'Producción',
        ],
        'it' => [
            'Inserisca %2$s nel campo %1$s.',
            'Si accede al server %1$s (porta %2$s, %3$s) con l’utente “%4$s” e la password “%5$s”; i file vanno in '
                .'%6$s.',
            'Mi scusi, ho sbagliato. Il dato giusto, %s:',
            'Vecchio server (disattivato, non usare più)',
            'Nuovo server',
            'la stessa del pannello di controllo',
            'Pannello di controllo',
            'Buongiorno,',
            'Staging',
            'Produzione',
        ],
        'nl' => [
            'Vul bij %1$s in: %2$s',
            'U bereikt de server %1$s (poort %2$s, %3$s) met de gebruiker “%4$s” en het wachtwoord “%5$s”; de '
                .'bestanden horen in %6$s.',
            'Sorry, ik heb een typfout gemaakt. Het juiste %s:',
            'Oude server (uitgeschakeld, niet meer gebruiken)',
            'Nieuwe server',
            'hetzelfde als voor het klantenpaneel',
            'Klantenpaneel',
            'Hallo,',
            'Staging',
            'Live',
        ],
        'pt' => [
            'Escreva %2$s no campo %1$s.',
            'Aceda ao servidor %1$s (porta %2$s, %3$s) com o utilizador “%4$s” e a palavra-passe “%5$s”; os ficheiros '
                .'vão para %6$s.',
            'Desculpe, enganei-me. O dado certo, %s:',
            'Servidor antigo (desativado, não usar)',
            'Servidor novo',
            'a mesma do painel de controlo',
            'Painel de controlo',
            'Olá,',
            'Teste',
            'Produção',
        ],
    ];

    /**
     * @param  array<string, string>  $l  labels by fact
     * @param  array<string, string|int>  $f  facts
     * @param  array<string, string|int>  $g  facts of a second account
     * @param  bool  $b  which variant
     * @param  string  $protocol  in the letter's words
     */
    public function __construct(
        private string $language,
        private array $l,
        private array $f,
        private array $g,
        private bool $b,
        private string $protocol,
    ) {
    }

    /** @return array{string, list<array<string, string|int>>} the letter and its accounts' facts */
    public function letter(int $layout): array
    {
        [$step, $sentence, $correction, $old, $new, $same, $panel, $hello, $staging, $live] = self::PHRASES[
            $this->language
        ];
        $rows = $this->rows($this->f);
        $mark = $this->b ? ' = ' : ': ';
        $f = $this->f;
        $other = ['password' => "Zz9-{$f['password']}"] + $f;
        $panelLines = "$panel\nURL: https://my.{$f['company']}.example/\n"
            .LetterMaker::PLAIN[$this->language][0]
            .": K20417\n"
            .LetterMaker::PLAIN[$this->language][1]
            .": {$f['password']}";
        $text = match ($layout) {
            0 => "FTP\n"
                .self::lines(array_map(static fn (array $row): array => ["$row[1] ($row[0])", ''], $rows),
                    '',
                    $this->b ? '- ' : '',
                ),
            1 => $this->steps($rows, $step),
            2 => $this->columns($staging, $live),
            3 => "$live\n".self::lines($rows, $mark)."\n\n$staging\n".self::lines($this->rows($this->g), $mark),
            4 => $this->url(),
            5 => $this->corrected($rows, $other, $correction),
            6 => $this->b
                ? "$new\n"
                    .self::lines($rows, $mark)
                    ."\n\n$old\n"
                    .self::lines(
                        [
                            [$this->l['host'], "old.{$f['company']}.example"],
                            [$this->l['login'], 'altname'],
                            [$this->l['password'], 'Old-77-pw'],
                        ],
                        $mark,
                    )
                : "$old\n"
                    .self::lines(
                        [
                            [$this->l['host'], "old.{$f['company']}.example"],
                            [$this->l['login'], 'altname'],
                            [$this->l['password'], 'Old-77-pw'],
                        ],
                        $mark,
                    )
                    ."\n\n$new\n"
                    .self::lines($rows, $mark),
            7 => $this->b
                ? "FTP\n".self::lines($this->rows(['password' => $same] + $f), $mark)."\n\n$panelLines"
                : "$panelLines\n\nFTP\n".self::lines($this->rows(['password' => $same] + $f), $mark),
            8 => "FTP\n"
                .self::lines(array_map(fn (array $row): array => [$this->mistyped($row[0]), $row[1]], $rows), $mark),
            9 => $this->grids($rows),
            10 => "FTP\n"
                .self::lines(
                    array_map(
                        static fn (array $row): array => [mb_str_pad(mb_strtoupper($row[0]), 34), $row[1]],
                        $rows,
                    ),
                    ' '.($this->b ? ': ' : ''),
                ),
            11 => "FTP\n"
                .self::lines(
                    array_map(
                        fn (array $row, string $fact): array => [
                            $row[0].($this->b ? ' / ' : ' (').self::WORDS['en'][$fact][0].($this->b ? '' : ')'),
                            $row[1],
                        ],
                        $rows,
                        ['domain', 'host', 'port', 'protocol', 'login', 'password', 'directory'],
                    ),
                    ': ',
                ),
            12 => $this->html($rows),
            13 => "FTP\n\n"
                .implode(
                    "\n",
                    array_map(
                        fn (array $row): string => $this->b ? "$row[0]\n→ $row[1]" : "• $row[0]:\n  $row[1]",
                        $rows,
                    ),
                ),
            14 => "[ftp]\n"
                .self::lines(
                    array_map(static fn (array $row): array => [mb_strtolower($row[0]), $row[1]], $rows),
                    $this->b ? '=' : ' = ',
                ),
            default => "{$this->l['domain']}: {$f['domain']}\n\n"
                .($this->b ? 'PS. ' : '')
                .sprintf(
                    $sentence,
                    $f['host'],
                    $f['port'],
                    $this->protocol,
                    $f['login'],
                    $f['password'],
                    $f['directory'],
                ),
        };
        $accounts = match ($layout) {
            2 => $this->b ? [$this->g, $f] : [$f, $this->g],
            3 => [$f, $this->g],
            default => [$f],
        };

        return [
            match (true) {
                $layout === 12 => $text,
                $this->b => "$text\n\n--\nwww.{$f['company']}.example",
                default => "$hello\n\n$text",
            },
            $accounts,
        ];
    }

    /**
     * @param  array<string, string|int>  $f
     * @return list<array{string, string|int}>
     */
    private function rows(array $f): array
    {
        return [
            [$this->l['domain'], $f['domain']],
            [$this->l['host'], $f['host']],
            [$this->l['port'], $f['port']],
            [$this->l['protocol'], $this->protocol],
            [$this->l['login'], $f['login']],
            [$this->l['password'], $f['password']],
            [$this->l['directory'], $f['directory']],
        ];
    }

    /** @param  list<array{string, string|int}>  $rows */
    private static function lines(array $rows, string $mark, string $before = ''): string
    {
        return implode("\n", array_map(static fn (array $row): string => $before.$row[0].$mark.$row[1], $rows));
    }

    /** @param  list<array{string, string|int}>  $rows */
    private function steps(array $rows, string $step): string
    {
        $text = $this->b ? '' : "FTP\n";
        foreach ($rows as $index => $row) {
            $text
                .= $index
                + 1
                .($this->b ? ') ' : '. ')
                .sprintf($step, $this->b ? "“{$row[0]}”" : $row[0], $row[1])
                ."\n";
        }

        return $text;
    }

    private function columns(string $staging, string $live): string
    {
        $accounts = $this->b ? [$this->g, $this->f] : [$this->f, $this->g];
        $names = $this->b ? [$staging, $live] : [$live, $staging];
        $first = $this->rows($accounts[0]);
        $second = $this->rows($accounts[1]);
        $text = $this->b ? mb_str_pad('', 36).mb_str_pad($names[0], 60).$names[1] : "\t$names[0]\t$names[1]";
        foreach ($first as $index => $row) {
            $text
                .= "\n"
                .($this->b
                    ? mb_str_pad($row[0], 36).mb_str_pad((string) $row[1], 60).$second[$index][1]
                    : "$row[0]\t$row[1]\t{$second[$index][1]}");
        }

        return $text;
    }

    private function url(): string
    {
        $scheme = [
            'ftp' => 'ftp',
            'ftps' => 'ftpes',
            'ftps-implicit' => 'ftps',
            'sftp' => 'sftp',
        ][
            $this->f['protocol']
        ];
        $url = $scheme
            .'://'
            .rawurlencode((string) $this->f['login'])
            .':'
            .rawurlencode((string) $this->f['password'])
            ."@{$this->f['host']}:{$this->f['port']}{$this->f['directory']}";

        return ($this->b ? "FTP → $url" : "FTP: <$url>")."\n{$this->l['domain']}: {$this->f['domain']}";
    }

    /**
     * @param  list<array{string, string|int}>  $rows
     * @param  array<string, string|int>  $other
     */
    private function corrected(array $rows, array $other, string $correction): string
    {
        $quoted = self::lines($this->rows($other), ': ', '> ');

        return sprintf($correction, $this->l['password'])
            ."\n"
            .($this->b ? '' : "{$this->l['password']}: ")
            .$rows[5][1]
            ."\n\n> FTP\n"
            .$quoted;
    }

    /** @param  list<array{string, string|int}>  $rows */
    private function grids(array $rows): string
    {
        $between = $this->b ? "\t" : ' | ';
        $text = '';
        foreach ([array_slice($rows, 0, 4), array_slice($rows, 4)] as $some) {
            $text .= implode($between, array_column($some, 0))."\n".implode($between, array_column($some, 1))."\n\n";
        }

        return "FTP\n\n".rtrim($text);
    }

    /** Two letters changed places, or one is missing. */
    private function mistyped(string $label): string
    {
        $at = intdiv(mb_strlen($label), 2);
        $letters = mb_str_split($label);
        if (mb_strlen($label) < 6) {
            return $label;
        }
        if ($this->b) {
            unset($letters[$at]);
        } else {
            [$letters[$at], $letters[$at + 1]] = [$letters[$at + 1], $letters[$at]];
        }

        return implode('', $letters);
    }

    /** @param  list<array{string, string|int}>  $rows */
    private function html(array $rows): string
    {
        $text = '<div class="x"><b>FTP</b></div>';
        foreach ($rows as $row) {
            $text .= $this->b
                ? "<dl><dt>$row[0]</dt><dd><code>".htmlspecialchars((string) $row[1]).'</code></dd></dl>'
                : "<div><span>$row[0]</span> <span style=\"color:#333\">"
                    .htmlspecialchars((string) $row[1])
                    .'</span></div>';
        }

        return $text;
    }
}
