<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Account;
use App\Models\Client;
use App\Sites\SiteForm;
use Cellarium\Core\Connection\Pin;
use Cellarium\Core\Connection\PrivateKey;
use Cellarium\Core\Connection\Protocol;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Hosting\LoginRules;
use Cellarium\Core\Intake\CleanedInput;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Letter\Fact;
use Cellarium\Core\Letter\LetterAccount;
use Cellarium\Core\Path\RemotePath;

/**
 * The form of an account, cleaned and judged. It is shown again as typed when something is wrong, with the password:
 * that page is the answer to the one who typed it, and nothing of it is kept.
 */
final class AccountForm
{
    public const FIELDS = [
        'client',
        'new_client',
        'label',
        'company',
        'protocol',
        'host',
        'port',
        'login',
        'password',
        'private_key',
        'passphrase',
        'address',
        'start_directory',
        'active_mode',
        'domain',
        'document_root',
        'tags',
        'notes',
        'accepted',
        'login_form',
        'ftp_protocol',
        'ftp_port',
        'control_url',
        'control_token',
    ];

    /** Characters at the most; the other fields take LONGEST_OTHER. */
    private const LONGEST = [
        'password' => 2000,
        'private_key' => 20_000,
        'passphrase' => 2000,
        'notes' => 20_000,
        'control_token' => 2000,
        'tags' => 1000,
        'start_directory' => 900,
        'document_root' => 900,
        'new_client' => 200,
    ];

    private const LONGEST_OTHER = 250;

    /** @var array<string, string> sentences by field */
    public array $wrong = [];

    /** @var array<string, string> what was cleaned or filled in, by field */
    public array $remarks = [];

    /** @var array<string, string> by field, what else a letter may mean */
    public array $otherwise = [];

    /** @param  array<string, string>  $typed by field */
    private function __construct(public array $typed)
    {
    }

    /** @param  array<mixed>  $input */
    public static function typed(#[\SensitiveParameter] array $input): self
    {
        $typed = [];
        foreach (self::FIELDS as $field) {
            $typed[$field] = is_scalar($input[$field] ?? null) ? (string) $input[$field] : '';
        }

        return new self($typed);
    }

    public static function empty(): self
    {
        return self::typed(['protocol' => Protocol::FtpsExplicit->value]);
    }

    private static function field(string $fact): string
    {
        return $fact === Fact::Directory->value ? 'document_root' : $fact;
    }

    public static function fromAccount(Account $account): self
    {
        return self::typed(
            [
                'client' => (string) $account->client_id,
                'protocol' => $account->protocol->value,
                'tags' => implode(', ', $account->tags),
                'active_mode' => $account->active_mode ? '1' : '',
                'login_form' => $account->login_rules === null ? '' : $account->rules()->form,
                'control_url' => $account->control_url,
                'ftp_protocol' => $account->ftp_protocol?->value,
                'ftp_port' => $account->ftp_port,
            ] + $account->only(['label', 'company', 'host', 'port', 'login', 'address', 'start_directory', 'notes']),
        );
    }

    public static function fromLetter(LetterAccount $letter): self
    {
        $form = self::typed([
            'host' => $letter->value(Fact::Host),
            'port' => $letter->port(),
            'protocol' => ($letter->protocol() ?? Protocol::FtpsExplicit)->value,
            'login' => $letter->value(Fact::Login),
            'password' => $letter->password()?->reveal(),
            'address' => $letter->value(Fact::Address),
            'domain' => $letter->value(Fact::Domain),
            'document_root' => $letter->value(Fact::Directory),
        ]);
        foreach ($letter->unsure() as $field => $why) {
            $form->remarks[self::field($field)] = ucfirst($why);
        }
        foreach ($letter->said as $field => $said) {
            $form->remarks[self::field($field)] = "The letter says: $said";
        }
        foreach ($letter->found as $field => $found) {
            $found->otherwise === null || ($form->otherwise[self::field($field)] = $found->otherwise);
            if ($found->changes !== [] && ! isset($form->remarks[$field])) {
                $form->remarks[self::field($field)] = ucfirst(implode('; ', $found->changes));
            }
        }

        return $form;
    }

    /**
     * @param  Account|null  $account  the one being changed, whose secrets stay where none are typed
     * @return array<string, mixed>|null what to store; null when something is wrong, see $wrong
     */
    public function values(?Account $account): ?array
    {
        foreach ($this->typed as $field => $typed) {
            $most = self::LONGEST[$field] ?? self::LONGEST_OTHER;
            mb_strlen($typed) <= $most || $this->wrong[$field] = "It is longer than $most characters.";
        }
        $protocol = Protocol::tryFrom($this->typed['protocol']);
        $protocol !== null || $this->wrong['protocol'] = 'Choose how the account is reached.';
        $protocol ??= Protocol::FtpsExplicit;
        $host = $this->host();
        $login = $this->word('login');
        $login !== '' || $this->wrong['login'] = 'The login is missing.';
        $key = $this->key($protocol);
        $password = $this->word('password');
        if (
            $password === ''
            && $key === null
            && ($account === null || ($account->secret === '' && $account->private_key === null))
        ) {
            $this->wrong['password'] =
                $protocol === Protocol::Sftp ? 'A password or a key is needed.' : 'The password is missing.';
        }
        $values = [
            'label' => mb_substr(trim($this->typed['label']), 0, 200),
            'company' => mb_substr(trim($this->typed['company']), 0, 200),
            'protocol' => $protocol,
            'host' => $host,
            'port' => $this->port($protocol),
            'login' => $login,
            'address' => $this->address(),
            'start_directory' => $this->path('start_directory'),
            'active_mode' => $this->typed['active_mode'] !== '',
            'tags' => $this->tags(),
            'notes' => trim($this->typed['notes']) ?: null,
        ];
        $control = $this->control($account);
        $values += $control + $this->ftpUsers($control['control_url'] !== null);
        if ($account === null || $password !== '') {
            $values['secret'] = $password;
        }
        if ($key !== null) {
            $values += [
                'private_key' => $key->open->reveal(),
                'key_kind' => $key->kind,
                'key_fingerprint' => $key->fingerprint,
            ];
        }
        $values['pin'] = $this->pin($account, $values);
        if ($account !== null && $password === '' && $key === null) {
            $elsewhere = (clone $account)
                ->fill(array_intersect_key($values, array_flip(['host', 'port', 'protocol', 'login', 'address'])))
                ->whereSecretsGo() !== $account->whereSecretsGo();
            $elsewhere
                && ($this->wrong['password'] =
                    'For another host, port, protocol, login or address the password is typed in again.');
        }
        $taken = Account::where(['host' => $values['host'], 'port' => $values['port'], 'login' => $values['login']])
            ->when($account !== null, static fn ($query) => $query->where('id', '!=', $account?->id))
            ->first();
        $taken === null
            || ($this->wrong[
                'login'
            ] = "This login at this host and port is known already: account $taken->id, {$taken->title()}.");

        return $this->wrong === [] ? $values : null;
    }

    /**
     * The host's control service. Its token goes to the address it was given for and nowhere else.
     *
     * @return array<string, mixed>
     */
    private function control(?Account $account): array
    {
        $typed = rtrim($this->word('control_url'), '/');
        $token = $this->word('control_token');
        if ($typed === '') {
            return ['control_url' => null, 'control_token' => null];
        }
        if (preg_match('#\A(https?)://([a-z0-9.-]+|\[[0-9a-f:]+\])(?::\d{1,5})?\z#i', $typed, $match) !== 1) {
            $this->wrong['control_url'] =
                'The address of a control service is scheme and name, "https://control.host.example".';
        } elseif (
            strtolower($match[1]) === 'http'
            && ! in_array(strtolower($match[2]), ['127.0.0.1', 'localhost', '[::1]'], true)
        ) {
            $this->wrong['control_url'] = 'Over http everybody on the way could read the access token. Use https.';
        }
        if ($token === '' && ($account?->control_token === null || $account->control_url !== $typed)) {
            $this->wrong['control_token'] = $account?->control_token === null
                ? 'The access token is missing.'
                : 'For another address the access token is typed in again.';
        }

        return ['control_url' => $typed]
            + ($token === '' ? [] : ['control_token' => $token])
            + ($account?->control_url === $typed ? [] : ['login_rules' => null]);
    }

    /**
     * How FTP users of the account are called and sign in, where a person has to tell: a host with a control service
     * tells itself.
     *
     * @return array<string, mixed>
     */
    private function ftpUsers(bool $linked): array
    {
        $protocol = Protocol::tryFrom($this->typed['ftp_protocol']);
        $port = trim($this->typed['ftp_port']);
        $port === ''
            || (ctype_digit($port) && (int) $port >= 1 && (int) $port <= 65535)
            || ($this->wrong['ftp_port'] = 'A port is a number from 1 to 65535; empty takes the usual one.');
        $values = [
            'ftp_protocol' => $protocol,
            'ftp_port' => $port === '' || isset($this->wrong['ftp_port']) ? null : (int) $port,
        ];
        $form = trim($this->typed['login_form']);
        if ($linked) {
            return $values;
        }
        try {
            return $values + ['login_rules' => $form === '' ? null : LoginRules::fromForm(
                $form,
                'a-zA-Z0-9._-',
            )->toArray()];
        } catch (\InvalidArgumentException $wrong) {
            $this->wrong['login_form'] = $wrong->getMessage();

            return $values;
        }
    }

    public function client(): ?Client
    {
        $name = trim($this->typed['new_client']);
        if ($name !== '') {
            return Client::firstOrNew(['name' => $name], ['colour' => Client::nextColour()]);
        }
        $client = ctype_digit($this->typed['client']) ? Client::find((int) $this->typed['client']) : null;
        $client !== null || $this->wrong['client'] = 'Choose whose account it is, or name a new client.';

        return $client;
    }

    /** @return array{domain: string, document_root: string}|null */
    public function site(): ?array
    {
        $domain = CleanedInput::host($this->typed['domain'])->value;
        if ($domain === '') {
            return null;
        }
        if (preg_match(SiteForm::DOMAIN, $domain) !== 1) {
            $this->wrong['domain'] = 'A domain has letters, digits and hyphens, and at least one dot: "site.example".';
        } elseif (\App\Models\Site::where('domain', $domain)->exists()) {
            $this->wrong['domain'] = "$domain belongs to another account already.";
        }

        return ['domain' => $domain, 'document_root' => $this->path('document_root') ?? '/'];
    }

    private function host(): string
    {
        $cleaned = CleanedInput::host($this->typed['host']);
        $cleaned->changes === [] || $this->remarks['host'] = ucfirst(implode('; ', $cleaned->changes));
        if ($cleaned->port !== null && trim($this->typed['port']) === '') {
            $this->typed['port'] = (string) $cleaned->port;
        }
        CleanedInput::isHost($cleaned->value)
            || ($this->wrong['host'] = $cleaned->value === ''
                ? 'The host is missing.'
                : 'This is not the name or address of a host: "ftp.host.example".');

        return $this->typed['host'] = $cleaned->value;
    }

    private function word(string $field): string
    {
        $cleaned = CleanedInput::word($this->typed[$field]);
        $cleaned->changes === [] || ($this->remarks[$field] = ucfirst(implode('; ', $cleaned->changes)));
        preg_match('/[\x00-\x1f\x7f]/', $cleaned->value) === 1
            && ($this->wrong[$field] = 'It has a line break or another control character in it.');

        return $this->typed[$field] = $cleaned->value;
    }

    private function port(Protocol $protocol): int
    {
        $typed = trim($this->typed['port']);
        if ($typed === '') {
            return $protocol->defaultPort();
        }
        if (! ctype_digit($typed) || (int) $typed < 1 || (int) $typed > 65535) {
            $this->wrong['port'] = 'A port is a number from 1 to 65535; empty takes the usual one.';
        }

        return (int) $typed;
    }

    private function address(): ?string
    {
        $typed = trim($this->typed['address']);
        $typed === ''
            || filter_var($typed, FILTER_VALIDATE_IP) !== false
            || ($this->wrong['address'] = 'An address is made of numbers: "192.0.2.7".');

        return $typed === '' ? null : $typed;
    }

    private function path(string $field): ?string
    {
        $typed = $this->word($field);
        if ($typed === '') {
            return null;
        }
        $path = RemotePath::tryFromString(str_starts_with($typed, '/') ? $typed : "/$typed");
        $path !== null || $this->wrong[$field] = 'A directory is a path from the top, "/htdocs", without "..".';

        return $path?->toString();
    }

    /** @return list<string> */
    private function tags(): array
    {
        return array_values(
            array_unique(
                array_filter(
                    array_map(
                        static fn (string $tag): string => mb_substr(trim($tag), 0, 40),
                        explode(',', $this->typed['tags']),
                    ),
                    static fn (string $tag): bool => $tag !== '',
                ),
            ),
        );
    }

    private function key(Protocol $protocol): ?PrivateKey
    {
        if (trim($this->typed['private_key']) === '') {
            return null;
        }
        if ($protocol !== Protocol::Sftp) {
            $this->wrong['private_key'] = 'Keys are for SFTP.';

            return null;
        }
        try {
            return PrivateKey::read($this->typed['private_key'], new Secret($this->typed['passphrase']));
        } catch (\UnexpectedValueException $wrong) {
            $this->wrong['private_key'] = $wrong->getMessage();

            return null;
        }
    }

    /**
     * What a person accepted on this form; else what was accepted before, as long as it is the same server.
     *
     * @param  array<string, mixed>  $values
     * @return array<mixed>|null
     */
    private function pin(?Account $account, array $values): ?array
    {
        if ($this->typed['accepted'] !== '') {
            try {
                return Pin::fromFields(JsonFields::fromJson($this->typed['accepted']))->toArray();
            } catch (\UnexpectedValueException) {
                $this->wrong['accepted'] = 'What was accepted could not be read. Try once more.';
            }
        }

        return $account !== null
            && [$account->host, $account->port, $account->protocol] === [
                $values['host'],
                $values['port'],
                $values['protocol'],
            ]
            ? $account->pin
            : null;
    }
}
