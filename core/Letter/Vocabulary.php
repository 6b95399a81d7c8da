<?php

declare(strict_types=1);

namespace Cellarium\Core\Letter;

use Cellarium\Core\Connection\Protocol;

/**
 * The words letters use, in English, German, French, Spanish, Italian, Dutch and Portuguese.
 *
 * Words are compared folded: small letters, without accents. A word of six letters and more may have one letter wrong,
 * one of nine and more two. A compound is known by its end: "Zugangspasswort" is a Passwort.
 */
final class Vocabulary
{
    private const LABELS = [
        'host' => [
            'host',
            'hostname',
            'host name',
            'host address',
            'hostnaam',
            'server',
            'servername',
            'server name',
            'server address',
            'server host',
            'serveradresse',
            'serveradres',
            'servernaam',
            'remote host',
            'ftp address',
            'ftp adresse',
            'adresse ftp',
            'direccion ftp',
            'indirizzo ftp',
            'ftp adres',
            'endereco ftp',
            'rechnername',
            'rechner',
            'host ftp',
            'hote ftp',
            'nombre del host',
            'nombre de servidor',
            'nom de serveur',
            'machine',
            'connect to',
            'verbinden mit',
            'serveur',
            'adresse du serveur',
            'nom du serveur',
            'hote',
            'nom d hote',
            'nom de l hote',
            'servidor',
            'nombre del servidor',
            'nombre de host',
            'direccion del servidor',
            'anfitrion',
            'nome host',
            'nome del server',
            'indirizzo del server',
            'indirizzo server',
            'anfitriao',
            'nome do servidor',
            'endereco do servidor',
            'nome do host',
            'adres van de server',
            'site address',
            'gateway',
            'ftp',
            'sftp',
            'ftps',
            'ftpes',
        ],
        'address' => [
            'ip',
            'ip address',
            'ipv4',
            'ipv4 address',
            'server ip',
            'server ip address',
            'ip number',
            'ip adresse',
            'adresse ip',
            'direccion ip',
            'indirizzo ip',
            'ip adres',
            'endereco ip',
            'numeric address',
        ],
        'port' => [
            'port',
            'port number',
            'portnummer',
            'numero de port',
            'puerto',
            'numero de puerto',
            'porta',
            'numero di porta',
            'poort',
            'poortnummer',
            'numero da porta',
            'porto',
        ],
        'protocol' => [
            'protocol',
            'protokoll',
            'protocole',
            'protocolo',
            'protocollo',
            'connection type',
            'connection',
            'encryption',
            'security',
            'transfer type',
            'transfer protocol',
            'logon type',
            'access type',
            'verbindungsart',
            'verbindung',
            'verschlusselung',
            'sicherheit',
            'ubertragungsart',
            'type de connexion',
            'chiffrement',
            'securite',
            'tipo de conexion',
            'cifrado',
            'seguridad',
            'tipo di connessione',
            'crittografia',
            'sicurezza',
            'type verbinding',
            'verbinding',
            'versleuteling',
            'beveiliging',
            'protocole de transfert',
            'protocolo de transferencia',
            'protocollo di trasferimento',
            'connexion',
            'conexion',
            'connessione',
            'ligacao',
            'conexao',
            'tipo de ligacao',
            'tipo de conexao',
            'criptografia',
            'encriptacao',
            'seguranca',
        ],
        'login' => [
            'user',
            'username',
            'user name',
            'userid',
            'user id',
            'login',
            'login name',
            'login id',
            'log in',
            'logon',
            'logon name',
            'account name',
            'benutzer',
            'benutzername',
            'benutzerkennung',
            'nutzer',
            'nutzername',
            'kennung',
            'anmeldename',
            'zugangskennung',
            'utilisateur',
            'nom d utilisateur',
            'nom de l utilisateur',
            'identifiant',
            'identifiant de connexion',
            'nom de connexion',
            'usuario',
            'nombre de usuario',
            'cuenta de usuario',
            'utente',
            'nome utente',
            'identificativo',
            'gebruiker',
            'gebruikersnaam',
            'identificador',
            'id utente',
            'id de usuario',
            'id utilisateur',
            'gebruikers id',
            'id de utilizador',
            'benutzer id',
            'inlognaam',
            'aanmeldnaam',
            'utilizador',
            'nome de utilizador',
            'nome do utilizador',
            'nome de usuario',
            'conta de utilizador',
        ],
        'password' => [
            'password',
            'pass',
            'pass word',
            'passwd',
            'pwd',
            'pw',
            'passphrase',
            'pass phrase',
            'passcode',
            'secret',
            'kennwort',
            'passwort',
            'zugangskennwort',
            'mot de passe',
            'mdp',
            'code secret',
            'code',
            'codigo',
            'codice',
            'zugangscode',
            'code d acces',
            'contrasena',
            'clave',
            'clave de acceso',
            'clave secreta',
            'parola chiave',
            'parola d ordine',
            'parola',
            'chiave d accesso',
            'wachtwoord',
            'paswoord',
            'palavra passe',
            'palavra chave',
            'senha',
            'senha de acesso',
        ],
        'directory' => [
            'directory',
            'folder',
            'path',
            'document root',
            'doc root',
            'docroot',
            'web root',
            'webroot',
            'webspace',
            'web space',
            'root directory',
            'web directory',
            'web folder',
            'upload folder',
            'upload directory',
            'upload path',
            'upload to',
            'home directory',
            'home folder',
            'start directory',
            'target directory',
            'remote path',
            'remote directory',
            'public folder',
            'files go to',
            'files go into',
            'files go in',
            'verzeichnis',
            'ordner',
            'pfad',
            'hochladen nach',
            'repertoire',
            'dossier',
            'chemin',
            'racine',
            'dossier web',
            'racine web',
            'repertoire web',
            'dossier racine',
            'directorio',
            'carpeta',
            'ruta',
            'carpeta web',
            'directorio web',
            'directorio raiz',
            'cartella',
            'percorso',
            'directory web',
            'cartella web',
            'cartella di destinazione',
            'map',
            'pad',
            'hoofdmap',
            'webmap',
            'doelmap',
            'diretorio',
            'pasta',
            'caminho',
            'pasta web',
            'pasta de destino',
            'bestandsmap',
            'doelmap',
            'stammverzeichnis',
            'cartella principale',
            'cartella radice',
            'repertoire racine',
            'diretorio web',
            'pasta raiz',
        ],
        'domain' => [
            'domain',
            'domain name',
            'domainname',
            'primary domain',
            'main domain',
            'website',
            'web site',
            'website address',
            'web site address',
            'web address',
            'site',
            'site name',
            'url',
            'domane',
            'internetadresse',
            'webadresse',
            'webseite',
            'homepage',
            'domaine',
            'nom de domaine',
            'site web',
            'site internet',
            'adresse du site',
            'dominio',
            'nombre de dominio',
            'sitio',
            'sitio web',
            'sitio na web',
            'pagina web',
            'sito',
            'sito web',
            'nome a dominio',
            'nome di dominio',
            'indirizzo web',
            'indirizzo del sito',
            'domein',
            'domeinnaam',
            'webadres',
            'nome de dominio',
            'nome do dominio',
            'endereco do site',
            'endereco web',
            'pagina',
        ],
    ];

    /** Words that mean other things as well, and count as labels only before a mark or a gap. */
    private const WEAK = [
        'code',
        'codigo',
        'codice',
        'machine',
        'rechner',
        'verbinding',
        'connexion',
        'conexion',
        'connessione',
        'ligacao',
        'conexao',
        'ftp',
        'sftp',
        'ftps',
        'ftpes',
        'server',
        'site',
        'url',
        'connection',
        'security',
        'secret',
        'pass',
        'map',
        'path',
        'folder',
        'web space',
        'webspace',
        'gateway',
        'pagina',
        'clave',
        'ip',
        'user',
        'login',
        'pad',
        'securite',
        'sicherheit',
        'seguridad',
        'sicurezza',
        'beveiliging',
        'seguranca',
        'verbindung',
        'parola',
        'porto',
        'homepage',
        'sito',
        'sitio',
        'hote',
        'pw',
        'log in',
        'logon',
        'nutzer',
        'kennung',
    ];

    /** Ends of compounds, the longer first. */
    private const ENDS = [
        'benutzername' => 'login',
        'nutzername' => 'login',
        'gebruikersnaam' => 'login',
        'benutzer' => 'login',
        'gebruiker' => 'login',
        'anmeldename' => 'login',
        'passwort' => 'password',
        'kennwort' => 'password',
        'wachtwoord' => 'password',
        'paswoord' => 'password',
        'password' => 'password',
        'servername' => 'host',
        'serveradresse' => 'host',
        'servernaam' => 'host',
        'hostname' => 'host',
        'server' => 'host',
        'verzeichnis' => 'directory',
        'ordner' => 'directory',
        'pfad' => 'directory',
        'directory' => 'directory',
        'domain' => 'domain',
        'protokoll' => 'protocol',
        'portnummer' => 'port',
        'protocol' => 'protocol',
        'domein' => 'domain',
        'bestandsmap' => 'directory',
        'webmap' => 'directory',
    ];

    private const SECTIONS = [
        'files' => [
            'ftp',
            'ftps',
            'sftp',
            'ftpes',
            'ssh',
            'upload',
            'uploads',
            'file transfer',
            'file access',
            'file upload',
            'webspace',
            'web space',
            'webruimte',
            'dateitransfer',
            'dateizugang',
            'hosting account',
            'hosting access',
            'web hosting',
            'transfert de fichiers',
            'transferencia de archivos',
            'trasferimento file',
            'bestandsoverdracht',
            'transferencia de ficheiros',
            'hebergement',
        ],
        'mail' => [
            'mail',
            'e mail',
            'email',
            'mails',
            'emails',
            'webmail',
            'web mail',
            'imap',
            'pop',
            'pop3',
            'smtp',
            'mailbox',
            'mailboxes',
            'postfach',
            'messagerie',
            'courriel',
            'correo',
            'correo electronico',
            'posta',
            'posta elettronica',
            'postvak',
            'correio',
            'correio eletronico',
            'incoming',
            'outgoing',
            'posteingang',
            'postausgang',
        ],
        'database' => [
            'database',
            'databases',
            'data base',
            'db',
            'mysql',
            'mariadb',
            'sql',
            'postgresql',
            'phpmyadmin',
            'datenbank',
            'base de donnees',
            'base de datos',
            'banca dati',
            'databank',
            'base de dados',
        ],
        'panel' => [
            'control panel',
            'panel',
            'customer area',
            'customer centre',
            'customer center',
            'customer login',
            'customer account',
            'customer portal',
            'customer',
            'client area',
            'client login',
            'member area',
            'member',
            'billing',
            'support',
            'invoice',
            'admin',
            'administration',
            'dashboard',
            'statistics',
            'stats',
            'ssl certificate',
            'kundenmenu',
            'kundencenter',
            'kundenbereich',
            'kundenportal',
            'kundenkonto',
            'kundennummer',
            'verwaltung',
            'rechnung',
            'espace client',
            'panneau',
            'panel de control',
            'area de cliente',
            'area de clientes',
            'pannello',
            'pannello di controllo',
            'area clienti',
            'klantenpaneel',
            'klantportaal',
            'controlepaneel',
            'painel',
            'painel de controlo',
            'painel de controle',
            'area do cliente',
        ],
        'names' => ['name server', 'name servers', 'nameserver', 'nameservers', 'dns', 'registrar'],
        'old' => [
            'old',
            'former',
            'previous',
            'switched off',
            'no longer',
            'discontinued',
            'deactivated',
            'alt',
            'alte',
            'alter',
            'altes',
            'alten',
            'bisherig',
            'bisherige',
            'bisheriger',
            'bisheriges',
            'abgeschaltet',
            'ancien',
            'ancienne',
            'anterior',
            'antiguo',
            'antigua',
            'viejo',
            'vecchio',
            'vecchia',
            'precedente',
            'oude',
            'oud',
            'vorige',
            'antigo',
            'antiga',
        ],
    ];

    /** What says that a value is not here; folded, at its beginning. */
    private const SAID = [
        'the same' => '/\A(?:the )?same (?:as|one)|\Aas (?:for|with|above|before)\b|\Aidentical|\A(?:die|der|'
            .'das) ?(?:gleiche|selbe)|\Awie (?:beim?|oben|bisher|fur|das|der)\b|\A(?:le|la) '
            .'meme\b|\Aidentique|\A(?:el|la) mism[oa]\b|\A(?:lo|la) stess[oa]\b|\Auguale|\A(?:het|de)zelfde|\Azelfde '
            .'als|\A[oa] mesm[oa]\b|\Aidem\b|\Aigual\b/',
        'unchanged' => '/\A(?:is |stays |bleibt )?(?:unchanged|not changed|as before|unverandert|wie bisher|inchange|'
            .'sin cambios|invariat|ongewijzigd|inalterad|sem alterac)/',
        'sent separately' => '/\A(?:is |will be |was |wird |wurde |est |sera |sara |wordt |sera )?(?:sent|send|'
            .'follows|provided|given|chosen|hidden|see\b|you (?:chose|have|know)|in a separate|by '
            .'(?:post|sms|phone|letter)|separat|separately|getrennt|gesondert|folgt|per (?:post|sms|brief)|in '
            .'einer|envoye|communique|par (?:courrier|sms)|enviad|por '
            .'(?:correo|separado|sms|carta)|inviat|comunicat|via (?:sms|posta)|apart|verzonden|gestuurd|per '
            .'(?:aparte|brief)|sera enviad)/',
    ];

    private const IS = [
        'is',
        'are',
        'ist',
        'lautet',
        'sind',
        'lauten',
        'est',
        'sont',
        'es',
        'son',
        'è',
        'sono',
        'zijn',
        'luidt',
        'é',
        'são',
        'remains',
        'heisst',
        'heißt',
    ];

    /** Small words that stand before a label and belong to it, or between label and value. */
    private const BEFORE = [
        'first',
        'erstes',
        'eerste',
        'the',
        'your',
        'our',
        'my',
        'and',
        'with',
        'new',
        'initial',
        'temporary',
        'account',
        'hosting',
        'web',
        'main',
        'der',
        'die',
        'das',
        'ihr',
        'ihre',
        'dein',
        'deine',
        'und',
        'mit',
        'dem',
        'den',
        'neues',
        'neue',
        'le',
        'la',
        'les',
        'votre',
        'et',
        'avec',
        'nouveau',
        'el',
        'los',
        'su',
        'sus',
        'y',
        'con',
        'nuevo',
        'nueva',
        'il',
        'lo',
        'suo',
        'sua',
        'e',
        'nuovo',
        'nuova',
        'de',
        'het',
        'uw',
        'je',
        'jouw',
        'en',
        'met',
        'nieuw',
        'nieuwe',
        'o',
        'a',
        'os',
        'seu',
        'com',
        'nova',
        'novo',
    ];

    /** @var array<string, array{Fact, bool}>|null by folded phrase: fact, and whether the word is weak */
    private static ?array $phrases = null;

    /** @var array<string, Section>|null by folded phrase */
    private static ?array $sections = null;

    /** @var array<string, array{Fact, bool, bool}|null> what was looked up before */
    private static array $known = [];

    /** As many characters as before, so that places in the one are places in the other. */
    public static function fold(string $text): string
    {
        return strtr(mb_strtolower($text), [
            'à' => 'a',
            'á' => 'a',
            'â' => 'a',
            'ã' => 'a',
            'ä' => 'a',
            'å' => 'a',
            'ç' => 'c',
            'è' => 'e',
            'é' => 'e',
            'ê' => 'e',
            'ë' => 'e',
            'ì' => 'i',
            'í' => 'i',
            'î' => 'i',
            'ï' => 'i',
            'ñ' => 'n',
            'ò' => 'o',
            'ó' => 'o',
            'ô' => 'o',
            'õ' => 'o',
            'ö' => 'o',
            'ù' => 'u',
            'ú' => 'u',
            'û' => 'u',
            'ü' => 'u',
            'ý' => 'y',
            'ß' => 's',
            '’' => '\'',
        ]);
    }

    /**
     * @param  string  $phrase  folded words with a blank between
     * @return array{Fact, bool, bool}|null the fact it is a label of, whether the word is weak, whether it was
     *     misspelled
     */
    public static function label(string $phrase): ?array
    {
        if (! array_key_exists($phrase, self::$known)) {
            count(self::$known) < 5000 || (self::$known = []);
            self::$known[$phrase] = self::lookUp($phrase);
        }

        return self::$known[$phrase];
    }

    /** @return array{Fact, bool, bool}|null */
    private static function lookUp(string $phrase): ?array
    {
        $exact = self::phrases()[$phrase] ?? null;
        if ($exact !== null) {
            return [$exact[0], $exact[1], false];
        }
        if (! str_contains($phrase, ' ')) {
            foreach (self::ENDS as $end => $fact) {
                if (strlen($phrase) > strlen($end) && str_ends_with($phrase, $end)) {
                    return [Fact::from($fact), false, false];
                }
            }
        }
        $words = explode(' ', $phrase);
        if (array_filter($words, static fn (string $word): bool => self::section($word) !== null) !== []) {
            return null;
        }
        foreach (self::phrases() as $known => [$fact, $weak]) {
            if (! $weak && $known[0] === $phrase[0] && self::isMisspelled(explode(' ', (string) $known), $words)) {
                return [$fact, false, true];
            }
        }

        return null;
    }

    /**
     * Whether words are others with a letter or two wrong: one in words of five letters and more, two from nine on.
     *
     * @param  list<string>  $known
     * @param  list<string>  $words
     */
    private static function isMisspelled(array $known, array $words): bool
    {
        if (count($known) !== count($words)) {
            return false;
        }
        foreach ($known as $index => $word) {
            $most = match (true) {
                strlen($word) >= 9 => 2,
                strlen($word) >= 6 => 1,
                default => 0,
            };
            if (
                $word !== $words[$index]
                && (abs(strlen($word) - strlen($words[$index])) > $most
                    || self::distance($word, $words[$index]) > $most)
            ) {
                return false;
            }
        }

        return true;
    }

    /** Letters that are missing, too many, wrong or swapped with their neighbour (Damerau). */
    private static function distance(string $one, string $other): int
    {
        $distance = levenshtein($one, $other);
        if ($distance === 2 && strlen($one) === strlen($other)) {
            for ($at = 0; $at < strlen($one) - 1; $at++) {
                if ($one[$at] !== $other[$at]) {
                    return $one[$at] === $other[$at + 1]
                        && $one[$at + 1] === $other[$at]
                        && substr($one, $at + 2) === substr($other, $at + 2)
                        ? 1
                        : 2;
                }
            }
        }

        return $distance;
    }

    /** @param  string  $phrase  folded words with a blank between */
    public static function section(string $phrase): ?Section
    {
        if (self::$sections === null) {
            self::$sections = [];
            foreach (self::SECTIONS as $section => $phrases) {
                foreach ($phrases as $one) {
                    self::$sections[$one] = Section::from($section);
                }
            }
        }
        if (isset(self::$sections[$phrase])) {
            return self::$sections[$phrase];
        }

        // The beginning of a compound: "mysqlpasswort", "kundenpasswort".
        return match (true) {
            preg_match('/\A(?:my)?sql[a-z]|\Adatenbank[a-z]/', $phrase) === 1 => Section::Database,
            preg_match('/\A(?:e?mail|postfach|imap|pop3|smtp)[a-z]/', $phrase) === 1 => Section::Mail,
            preg_match('/\A(?:kunden|klanten)[a-z]/', $phrase) === 1 => Section::Panel,
            preg_match('/\As?ftps?[a-z]/', $phrase) === 1 => Section::Files,
            default => null,
        };
    }

    /** Whether a heading is about what takes the place of something old. */
    public static function isNew(string $heading): bool
    {
        return preg_match(
            '/\b(?:new|current|neue?[rns]?|aktuell\w*|nouveau|nouvelle|nuev[oa]|nuov[oa]|nieuwe?|nov[oa])\b/',
            self::fold($heading),
        ) === 1;
    }

    /** Words behind a label that say which one: "password iniziale", "domaine principal". */
    public static function isWhichOne(string $word): bool
    {
        return preg_match(
            '/\A(?:ini[ct]ial[e]?|iniziale|provvisori[oa]|provisoire|provisional|tempora\w*|principale?|racine|raiz|'
                .'root|nuev[oa]|nouveau|nuov[oa]|nov[oa])\z/',
            $word,
        ) === 1;
    }

    public static function isBefore(string $word): bool
    {
        return in_array($word, self::BEFORE, true);
    }

    /** @param  string  $word  as it stands there: "e" is "and", "è" is "is" */
    public static function isIs(string $word): bool
    {
        return in_array(mb_strtolower($word), self::IS, true);
    }

    /** What a letter says instead of a value: "the same", "unchanged", "sent separately"; null for a value. */
    public static function said(string $value): ?string
    {
        $folded = self::fold(trim($value, " \t(\"'"));
        foreach (self::SAID as $said => $pattern) {
            if (preg_match($pattern, $folded) === 1) {
                return $said;
            }
        }

        return null;
    }

    /** @param  string  $words  in whatever case */
    public static function protocolIn(string $words): ?Protocol
    {
        $words = self::fold($words);

        return match (true) {
            preg_match('/\bsftp\b|\bssh\b/', $words) === 1 => Protocol::Sftp,
            preg_match('/\bimpli[cz]it/', $words) === 1 => Protocol::FtpsImplicit,
            preg_match(
                '/\bftps\b|\bftpes\b|\bexpli[cz]it|\bftp\W+(?:over |with |via |uber |mit |con |avec |met |com |sobre |'
                    .'su |\()?\W*(?:tls|ssl)|\b(?:tls|ssl)\b/',
                $words,
            ) === 1 => Protocol::FtpsExplicit,
            preg_match('/\bftp\b/', $words) === 1 => Protocol::Ftp,
            default => null,
        };
    }

    /** @return array<string, array{Fact, bool}> */
    private static function phrases(): array
    {
        if (self::$phrases === null) {
            self::$phrases = [];
            foreach (self::LABELS as $fact => $phrases) {
                foreach ($phrases as $phrase) {
                    self::$phrases[$phrase] = [Fact::from($fact), in_array($phrase, self::WEAK, true)];
                }
            }
            // As people write umlauts without having them.
            foreach (
                [
                    'verschlusselung' => 'verschluesselung',
                    'domane' => 'domaene',
                    'ubertragungsart' => 'uebertragungsart',
                ] as $one => $other
            ) {
                self::$phrases[$other] = self::$phrases[$one];
            }
        }

        return self::$phrases;
    }
}
