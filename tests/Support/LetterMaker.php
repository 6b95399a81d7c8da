<?php

declare(strict_types=1);

namespace Tests\Support;

/**
 * Makes welcome letters with what they say: made-up facts, in seven languages, through many layouts, with noise.
 *
 * Layouts and words are in parts. Rules are written looking at letters of some; what is claimed of the reader is
 * counted on the part UNSEEN, whose layouts nobody looks at while rules are written.
 */
final class LetterMaker
{
    /** Rules were written looking at letters of these layouts. */
    public const SEEN = 0;

    public const ONCE_UNSEEN = 1;

    /** Of other layouts, with other words: one half to look at, one that is only counted. */
    public const LOOKED_AT = 2;

    public const UNSEEN = 3;

    public const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt'];

    /** By language: words for each fact, the first for letters that are looked at, the others for both. */
    private const WORDS = [
        'en' => [
            'host' => [['FTP server', 'Host name'], ['Server', 'FTP host', 'Server address']],
            'login' => [['User name', 'FTP user'], ['Login', 'Username', 'Account name']],
            'password' => [['Password', 'FTP password'], ['Pass', 'Passphrase']],
            'port' => [['Port'], ['Port number']],
            'directory' => [['Directory', 'Web directory'], ['Document root', 'Upload folder']],
            'domain' => [['Domain', 'Website'], ['Domain name', 'Web address']],
            'protocol' => [['Protocol'], ['Connection type', 'Encryption']],
        ],
        'de' => [
            'host' => [['FTP-Server', 'Servername'], ['Server', 'FTP-Host', 'Serveradresse']],
            'login' => [['Benutzername', 'FTP-Benutzer'], ['Benutzer', 'Nutzername', 'Kennung']],
            'password' => [['Passwort', 'FTP-Passwort'], ['Kennwort', 'Zugangspasswort']],
            'port' => [['Port'], ['Portnummer']],
            'directory' => [['Verzeichnis', 'Webverzeichnis'], ['Startverzeichnis', 'Zielordner']],
            'domain' => [['Domain', 'Webseite'], ['Internetadresse', 'Domainname']],
            'protocol' => [['Protokoll'], ['Verbindungsart', 'Verschlüsselung']],
        ],
        'fr' => [
            'host' => [['Serveur FTP', 'Nom d’hôte'], ['Serveur', 'Hôte', 'Adresse du serveur']],
            'login' => [['Identifiant', 'Utilisateur FTP'], ['Nom d’utilisateur', 'Utilisateur']],
            'password' => [['Mot de passe', 'Mot de passe FTP'], ['Mdp', 'Mot de passe d’accès']],
            'port' => [['Port'], ['Numéro de port']],
            'directory' => [['Répertoire', 'Dossier web'], ['Dossier', 'Chemin']],
            'domain' => [['Domaine', 'Site web'], ['Nom de domaine', 'Adresse du site']],
            'protocol' => [['Protocole'], ['Type de connexion', 'Chiffrement']],
        ],
        'es' => [
            'host' => [['Servidor FTP', 'Nombre del servidor'], ['Servidor', 'Host', 'Dirección del servidor']],
            'login' => [['Usuario', 'Usuario FTP'], ['Nombre de usuario', 'Cuenta de usuario']],
            'password' => [['Contraseña', 'Contraseña FTP'], ['Clave', 'Clave de acceso']],
            'port' => [['Puerto'], ['Número de puerto']],
            'directory' => [['Directorio', 'Carpeta web'], ['Carpeta', 'Ruta']],
            'domain' => [['Dominio', 'Sitio web'], ['Nombre de dominio', 'Página web']],
            'protocol' => [['Protocolo'], ['Tipo de conexión', 'Cifrado']],
        ],
        'it' => [
            'host' => [['Server FTP', 'Nome host'], ['Server', 'Host', 'Indirizzo del server']],
            'login' => [['Utente', 'Utente FTP'], ['Nome utente', 'Nome utente FTP']],
            'password' => [['Password', 'Password FTP'], ['Parola chiave', 'Parola d’ordine']],
            'port' => [['Porta'], ['Numero di porta']],
            'directory' => [['Cartella', 'Directory web'], ['Percorso', 'Cartella di destinazione']],
            'domain' => [['Dominio', 'Sito web'], ['Nome a dominio', 'Indirizzo web']],
            'protocol' => [['Protocollo'], ['Tipo di connessione', 'Crittografia']],
        ],
        'nl' => [
            'host' => [['FTP-server', 'Servernaam'], ['Server', 'Hostnaam', 'Serveradres']],
            'login' => [['Gebruikersnaam', 'FTP-gebruiker'], ['Gebruiker', 'Inlognaam']],
            'password' => [['Wachtwoord', 'FTP-wachtwoord'], ['Paswoord', 'Toegangswachtwoord']],
            'port' => [['Poort'], ['Poortnummer']],
            'directory' => [['Map', 'Webmap'], ['Hoofdmap', 'Pad']],
            'domain' => [['Domein', 'Website'], ['Domeinnaam', 'Webadres']],
            'protocol' => [['Protocol'], ['Type verbinding', 'Versleuteling']],
        ],
        'pt' => [
            'host' => [['Servidor FTP', 'Nome do servidor'], ['Servidor', 'Anfitrião', 'Endereço do servidor']],
            'login' => [['Utilizador', 'Utilizador FTP'], ['Nome de utilizador', 'Usuário']],
            'password' => [['Palavra-passe', 'Palavra-passe FTP'], ['Senha', 'Senha de acesso']],
            'port' => [['Porta'], ['Número da porta']],
            'directory' => [['Diretório', 'Pasta web'], ['Pasta', 'Caminho']],
            'domain' => [['Domínio', 'Site'], ['Nome de domínio', 'Endereço do site']],
            'protocol' => [['Protocolo'], ['Tipo de ligação', 'Criptografia']],
        ],
    ];

    /**
     * By language: greeting, what leads in, heading of the files' part, of mail, of the database, of the panel,
     * farewell, "is", "and".
     */
    private const PHRASES = [
        'en' => [
            'Dear customer,',
            'Welcome! Here is what you need for your web space.',
            'FTP access',
            'E-mail',
            'MySQL database',
            'Control panel',
            'Kind regards, your hosting team',
            'is',
            'and',
        ],
        'de' => [
            'Guten Tag,',
            'willkommen! Hier sind Ihre Zugangsdaten für den Webspace.',
            'FTP-Zugang',
            'E-Mail-Postfach',
            'MySQL-Datenbank',
            'Kundenmenü',
            'Mit freundlichen Grüßen, Ihr Team',
            'lautet',
            'und',
        ],
        'fr' => [
            'Bonjour,',
            'bienvenue ! Voici vos accès à votre hébergement.',
            'Accès FTP',
            'Messagerie',
            'Base de données MySQL',
            'Espace client',
            'Cordialement, votre équipe',
            'est',
            'et',
        ],
        'es' => [
            'Estimado cliente:',
            '¡bienvenido! Estos son los datos de su alojamiento.',
            'Acceso FTP',
            'Correo electrónico',
            'Base de datos MySQL',
            'Panel de control',
            'Un saludo, su equipo',
            'es',
            'y',
        ],
        'it' => [
            'Gentile cliente,',
            'benvenuto! Ecco i dati del suo spazio web.',
            'Accesso FTP',
            'Posta elettronica',
            'Database MySQL',
            'Pannello di controllo',
            'Cordiali saluti, il suo team',
            'è',
            'e',
        ],
        'nl' => [
            'Beste klant,',
            'welkom! Hier zijn de gegevens van uw webruimte.',
            'FTP-toegang',
            'E-mail',
            'MySQL-database',
            'Klantenpaneel',
            'Met vriendelijke groet, uw team',
            'is',
            'en',
        ],
        'pt' => [
            'Caro cliente,',
            'bem-vindo! Aqui estão os dados do seu alojamento.',
            'Acesso FTP',
            'Correio eletrónico',
            'Base de dados MySQL',
            'Painel de controlo',
            'Com os melhores cumprimentos, a sua equipa',
            'é',
            'e',
        ],
    ];

    public const PLAIN = [
        'en' => ['Login', 'Password'],
        'de' => ['Benutzer', 'Passwort'],
        'fr' => ['Identifiant', 'Mot de passe'],
        'es' => ['Usuario', 'Contraseña'],
        'it' => ['Utente', 'Password'],
        'nl' => ['Gebruiker', 'Wachtwoord'],
        'pt' => ['Utilizador', 'Senha'],
    ];

    private const FOOTERS = [
        'Northquay Hosting Ltd., registered office Quay Road 7, VAT 123 456 789, www.northquay.example',
        'Harbourhost GmbH, Am Kai 3, HRB 4711, USt-IdNr. DE 000000000, support@harbourhost.example',
        'Diese E-Mail ist vertraulich. This message is confidential. Password reset: https://my.ternmast.example/reset',
    ];

    /** Layouts of the part that is looked at have even numbers, the others odd ones. */
    public const LAYOUTS = 64;

    private int $state;

    public function __construct(int $seed)
    {
        $this->state = $seed * 2_654_435_761 % 4_294_967_291 + 1;
    }

    /** @return array{string, list<array<string, string|int|null>>} the letter, and its accounts' facts */
    public function letter(int $part, int $number): array
    {
        $this->state = ($this->state + 7919 * $number + $part) % 2_147_483_646 + 1;
        $language = self::LANGUAGES[$number % 7];
        $facts = $this->facts();
        if ($part >= self::LOOKED_AT) {
            return $this->other($part, $number, $language, $facts);
        }
        $layout = (intdiv($number, 7) * 2 + $part) % self::LAYOUTS;
        $labels = [];
        foreach (self::WORDS[$language] as $fact => [$seen, $both]) {
            $labels[$fact] = $this->one($part === self::SEEN ? $seen : $both);
        }

        return [
            $this->noise($this->lay($layout, $language, $labels, $facts), $layout),
            $this->expected($layout, $facts),
        ];
    }

    private function next(int $below): int
    {
        $this->state = ($this->state * 48271) % 2_147_483_647;

        return $this->state % $below;
    }

    /**
     * @template T
     *
     * @param  list<T>  $from
     * @return T
     */
    private function one(array $from): mixed
    {
        return $from[$this->next(count($from))];
    }

    /** @return array<string, string|int> */
    private function facts(): array
    {
        $name = $this->one([
            'tansymill',
            'umberkiln',
            'curlewpoint',
            'samphirebakery',
            'oystershed',
            'heronlodge',
            'ropewalk',
            'saltcellar',
            'thriftseeds',
            'larkfield',
        ]);
        $company = $this->one(['northquay', 'harbourhost', 'ternmast', 'shorewebs']);
        [$protocol, $port] = $this->one([
            ['ftp', 21],
            ['ftps', 21],
            ['sftp', 22],
            ['ftps-implicit', 990],
            ['sftp', 2222],
            ['ftps', 2121],
        ]);
        $letters = 'abcdefghijkmnpqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ23456789';
        $password = '';
        for ($length = 9 + $this->next(6); $length > 0; $length--) {
            $password .= $letters[$this->next(strlen($letters))];
        }
        $password =
            substr_replace($password, $this->one(['-', '!', '#', '+', '_', '%', '=', '']), 4, 0).$this->next(10);

        return [
            'host' => $this->one([
                "ftp.$name.example",
                "ftp.$company.example",
                'web'.(1 + $this->next(40)).".$company.example",
                "srv-{$this->next(90)}.$company.example",
            ]),
            'login' => $this->one([
                $name,
                'w0'.(1000 + $this->next(9000)),
                "$name@$name.example",
                "web{$this->next(999)}",
                "$name-ftp",
            ]),
            'password' => $password,
            'port' => $port,
            'protocol' => $protocol,
            'directory' => $this->one(['/htdocs', '/public_html', "/www/$name.example", '/html', '/web/docs']),
            'domain' => "$name.example",
            'company' => $company,
        ];
    }

    /**
     * @param  array<string, string|int>  $facts
     * @return array{string, list<array<string, string|int|null>>}
     */
    private function other(int $part, int $number, string $language, array $facts): array
    {
        $layout = intdiv($number, 7) % LetterLayouts::COUNT;
        $labels = array_map($this->one(...), LetterLayouts::WORDS[$language]);
        $again = $this->facts();
        $layouts = new LetterLayouts(
            $language,
            $labels,
            $facts,
            [
                'host' => $facts['host'],
                'port' => $facts['port'],
                'protocol' => $facts['protocol'],
                'domain' => "staging.{$facts['domain']}",
                'directory' => '/staging',
                'login' => "{$facts['login']}-st",
            ] + $again,
            $part === self::UNSEEN,
            $this->protocolWords((string) $facts['protocol']),
        );
        [$text, $accounts] = $layouts->letter($layout);

        return [
            $this->noise($text, $number + $part),
            array_map(fn (array $account): array => $this->expected(0, $account)[0], $accounts),
        ];
    }

    /** How a letter says which protocol it is. */
    private function protocolWords(string $protocol): string
    {
        return match ($protocol) {
            'ftp' => 'FTP',
            'ftps' => $this->one(['FTPS (explicit TLS)', 'FTP over TLS', 'FTPES']),
            'ftps-implicit' => $this->one(['FTPS, implicit', 'FTPS (implicit TLS)']),
            default => $this->one(['SFTP', 'SFTP (SSH)']),
        };
    }

    /**
     * @param  array<string, string>  $l  labels
     * @param  array<string, string|int>  $f  facts
     */
    private function lay(int $layout, string $language, array $l, array $f): string
    {
        [$hello, $lead, $files, $mail, $database, $panel, $bye, $is, $and] = self::PHRASES[$language];
        $protocol = $this->protocolWords((string) $f['protocol']);
        $rows = [
            [$l['host'], $f['host']], [$l['port'], $f['port']], [$l['protocol'], $protocol],
            [$l['login'], $f['login']], [$l['password'], $f['password']], [$l['directory'], $f['directory']],
        ];
        $domain = [$l['domain'], $f['domain']];
        // Even and odd layouts are made by turns from the same kinds of letter, with other marks and another order.
        $odd = $layout % 2;
        $kind = intdiv($layout, 2);
        $mark = $this->one($odd === 1 ? [' : ', ' = ', ' -> ', ' – '] : [': ', ':  ', "\t", ' ..... ']);
        $lines = static fn (array $some, string $mark): string => implode(
            "\n",
            array_map(static fn (array $row): string => "$row[0]$mark$row[1]", $some),
        );
        $mine = match ($kind % 8) {
            0 => $files."\n".$lines([$domain, ...$rows], $mark),
            1 => $this->numbered([$domain, ...$rows], $odd === 1 ? ') ' : '. ', $mark),
            2 => implode(
                "\n\n",
                array_map(static fn (array $row): string => "$row[0]\n".($odd === 1 ? '    ' : '')."$row[1]", [
                    $domain,
                    ...$rows,
                ]),
            ),
            3 => $this->table([$domain, ...$rows], $odd === 1),
            4 => "$domain[0]: $domain[1]\n".$this->sentence($l, $f, $language, $protocol, $is, $and, $odd === 1),
            5 => "$files: "
                .implode(
                    $odd === 1 ? '; ' : ', ',
                    array_map(static fn (array $row): string => "$row[0]: $row[1]", [$domain, ...$rows]),
                ),
            6 => "## $files\n\n"
                .implode(
                    "\n",
                    array_map(
                        static fn (array $row): string => $odd === 1
                            ? "- **$row[0]**: `$row[1]`"
                            : "* **$row[0]:** $row[1]",
                        [$domain, ...$rows],
                    ),
                ),
            default => '<h3>'
                .htmlspecialchars($files)
                .'</h3>'
                .($odd === 1
                    ? $this->html([$domain, ...$rows])
                    : '<p>'
                        .implode(
                            '<br>',
                            array_map(
                                static fn (array $row): string => htmlentities($row[0])
                                    .':&nbsp;<b>'
                                    .htmlspecialchars((string) $row[1])
                                    .'</b>',
                                [$domain, ...$rows],
                            ),
                        )
                        .'</p>'),
        };
        $around = intdiv($kind, 8);
        $isHtml = str_starts_with($mine, '<');
        // What is not about files is not called so: the other parts have plain words.
        [$login, $word] = self::PLAIN[$language];
        $other = "$mail\n"
            .$lines(
                [
                    ['IMAP', "mail.{$f['company']}.example"],
                    [$login, "info@{$f['domain']}"],
                    [$word, 'Mail-'.$this->next(10_000).'-x'],
                ],
                ': ',
            );
        $more = "$database\n"
            .$lines(
                [
                    [$login, 'db'.$this->next(9999)],
                    [$word, 'Db-'.$this->next(10_000).'-y'],
                    ['Host', 'localhost'],
                ],
                ': ',
            );
        $panelLines = "$panel\n"
            .$lines(
                [
                    ['URL', "https://my.{$f['company']}.example/"],
                    [$login, 'K'.$this->next(99_999)],
                    [$word, 'Pn-'.$this->next(10_000).'-z'],
                ],
                ': ',
            );
        $wrap = static fn (string $text): string => $isHtml ? '<p>'.nl2br(htmlspecialchars($text)).'</p>' : $text;
        $blocks = match ($around) {
            0 => [$wrap("$hello\n\n$lead"), $mine, $wrap($bye)],
            1 => $odd === 1
                ? [$wrap($hello), $wrap($panelLines), $mine, $wrap($other), $wrap($bye)]
                : [$wrap($hello), $mine, $wrap($other), $wrap($more), $wrap($bye)],
            2 => $odd === 1
                ? [$wrap($more), $wrap($lead), $mine, $wrap($panelLines), $wrap($bye), $wrap(self::FOOTERS[1])]
                : [$wrap($lead), $wrap($panelLines), $mine, $wrap($bye), $wrap(self::FOOTERS[0])],
            default => [
                $wrap('Subject: Re: '.$files),
                $wrap($hello),
                $mine,
                $wrap($bye),
                $wrap('-- '."\n".self::FOOTERS[2]),
            ],
        };

        return implode($isHtml ? "\n" : "\n\n", $blocks);
    }

    /** @param  list<array{string, string|int}>  $rows */
    private function numbered(array $rows, string $point, string $mark): string
    {
        $text = '';
        foreach ($rows as $index => $row) {
            $text .= ($index + 1)."$point$row[0]$mark$row[1]\n";
        }

        return rtrim($text);
    }

    /** @param  list<array{string, string|int}>  $rows */
    private function table(array $rows, bool $across): string
    {
        if (! $across) {
            return implode("\n", array_map(static fn (array $row): string => "| $row[0] | $row[1] |", $rows));
        }

        return '| '
            .implode(' | ', array_column($rows, 0))
            ." |\n|"
            .str_repeat('---|', count($rows))
            ."\n| "
            .implode(' | ', array_column($rows, 1))
            .' |';
    }

    /** @param  list<array{string, string|int}>  $rows */
    private function html(array $rows): string
    {
        return '<table>'
            .implode(
                '',
                array_map(
                    static fn (array $row): string => '<tr><td>'
                        .htmlentities($row[0])
                        .'</td><td>'
                        .htmlspecialchars((string) $row[1])
                        .'</td></tr>',
                    $rows,
                ),
            )
            .'</table>';
    }

    /**
     * @param  array<string, string>  $l
     * @param  array<string, string|int>  $f
     */
    private function sentence(
        array $l,
        array $f,
        string $language,
        string $protocol,
        string $is,
        string $and,
        bool $odd,
    ): string {
        return $odd
            ? "$protocol, {$l['port']} {$f['port']}. {$l['host']} $is {$f['host']}, "
                ."{$l['login']} $is {$f['login']} $and "
                ."{$l['password']} $is {$f['password']}. {$l['directory']}: {$f['directory']}"
            : "{$l['host']} $is {$f['host']} "
                ."({$l['port']} {$f['port']}, $protocol). {$l['login']} $is {$f['login']}. "
                ."{$l['password']} $is {$f['password']}\n{$l['directory']}: {$f['directory']}";
    }

    private function noise(string $text, int $layout): string
    {
        return match ($layout % 5) {
            1 => str_replace(': ', ":\u{A0}", $text),
            2 => (string) preg_replace('/\n/', "\r\n", $text),
            3 => "\u{FEFF}".str_replace('example', "exam\u{200B}ple", $text),
            4 => str_starts_with($text, '<')
                ? $text
                : implode("\n", array_map(static fn (string $line): string => "  $line", explode("\n", $text))),
            default => $text,
        };
    }

    /**
     * @param  array<string, string|int>  $f
     * @return list<array<string, string|int|null>>
     */
    private function expected(int $layout, array $f): array
    {
        return [array_diff_key($f, ['company' => true]) + ['address' => null]];
    }
}
