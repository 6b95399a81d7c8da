<?php

declare(strict_types=1);

namespace App\FtpUsers;

use App\Models\Account;
use App\Models\Closing;
use App\Models\FtpUserState;
use App\Models\Person;
use App\Text\When;
use Cellarium\Core\Credential\PasswordKind;
use Cellarium\Core\Credential\PasswordMaker;
use Cellarium\Core\Credential\PasswordStrength;
use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Reach\Extent;
use Cellarium\Core\Reach\ReachPreview;
use Cellarium\Core\Words\Bytes;
use Illuminate\Support\Facades\DB;

/**
 * The form of a new FTP user, judged. It is shown again as typed when something is wrong, with the password: that page
 * is the answer to the one who typed it, and nothing of it is kept.
 */
final class NewFtpUserForm
{
    public const FIELDS = [
        'name',
        'directory',
        'makes_directory',
        'password_kind',
        'password',
        'megabytes',
        'ends',
        'closes',
        'reason',
        'purpose',
        'read_only',
        'forgets',
    ];

    public const OWN = 'own';

    private const LEAST_LENGTH = 12;

    /** @var array<string, string> sentences by field */
    public array $wrong = [];

    /** @param  array<string, string>  $typed by field */
    private function __construct(public readonly Account $account, public array $typed)
    {
    }

    /** @param  array<mixed>  $input */
    public static function typed(Account $account, #[\SensitiveParameter] array $input): self
    {
        $typed = [];
        foreach (self::FIELDS as $field) {
            $typed[$field] = is_scalar($input[$field] ?? null) ? (string) $input[$field] : '';
        }

        return new self($account, $typed);
    }

    public static function empty(Account $account, ?string $directory = null): self
    {
        return self::typed($account, [
            'forgets' => $account->control_url === null ? '' : '1',
            'directory' => $directory ?? ($account->sites->first()->document_root ?? '/'),
            'password_kind' => PasswordKind::Readable->value,
            'ends' => Closing::AtTime->value,
            'closes' => When::field(When::evening(When::evening()->subHour()->isPast() ? 1 : 0)),
        ]);
    }

    /** @return NewFtpUser|null null when something is wrong, see $wrong */
    public function order(PasswordStrength $strength, ?Person $person): ?NewFtpUser
    {
        $name = $this->typed['name'];
        $objection = $this->objection();
        $objection === null || $this->wrong['name'] = $objection;
        $directory = $this->directory();
        if ($directory === null) {
            $this->wrong['directory'] = 'The directory starts with a slash and has no ".." in it.';
        } elseif ($this->foresight($directory)->exists === false && $this->typed['makes_directory'] === '') {
            $this->wrong[
                'directory'
            ] = "$directory is not there. Most often that is a typing mistake, and the user would land in an empty "
                .'place beside the site. Choose one that is there, or say below that it is to be made.';
        }
        $ending = ClosingChoice::typed($this->typed['ends'], $this->typed['closes'], $this->typed['reason']);
        if (is_array($ending)) {
            $this->wrong[$ending[0]] = $ending[1];
        }
        $space = $this->space();
        $password = $this->password($strength);

        return $this->wrong !== [] || $directory === null || is_array($ending)
            ? null
            : new NewFtpUser(
                $name,
                $directory,
                $space,
                $ending->kind,
                $ending->at,
                $ending->reason,
                mb_substr(trim($this->typed['purpose']), 0, 200),
                $password,
                $this->typed['read_only'] !== '' && $this->account->rules()->readOnly,
                $this->typed['makes_directory'] !== '',
                $this->mayForget() && $this->typed['forgets'] !== '' && $ending->kind !== Closing::WithJob,
                $person,
            );
    }

    public function objection(): ?string
    {
        return $this->account
            ->rules()
            ->objection($this->typed['name'], [
                $this->account->login,
                ...$this->account->ftpUsers()->where('state', '!=', FtpUserState::Removed)->pluck('login')->all(),
            ]);
    }

    public function directory(): ?RemotePath
    {
        return RemotePath::tryFromString($this->typed['directory']);
    }

    public function foresight(RemotePath $directory): ReachPreview
    {
        return ReachPreview::fromDirectory(
            $directory,
            (string) $this->account->client_id,
            $this->account->places(),
            $this->account->seen(),
            $this->account->destinations(),
        );
    }

    /**
     * Only where the host can set another password is a forgotten one no hindrance to proving that the user is closed.
     */
    public function mayForget(): bool
    {
        return $this->account->control_url !== null;
    }

    /**
     * Bits of a typed password and a word for them.
     *
     * @return array{int, string}
     */
    public function strength(PasswordStrength $strength): array
    {
        $own = [
            $this->typed['name'],
            $this->account->client->name,
            $this->account->login,
            $this->account->host,
            ...$this->account->sites->pluck('domain')->all(),
        ];
        $bits = $strength->bits($this->typed['password'], array_values(array_filter($own)));

        return [$bits, PasswordStrength::inWords($bits)];
    }

    /** Why the space would not do for what was deployed there; null when it would. */
    public function spaceWarning(ReachPreview $foresight): ?string
    {
        $limit = ctype_digit($this->typed['megabytes']) ? (int) $this->typed['megabytes'] * 1_000_000 : null;
        $domains = array_column($foresight->reach->touched(), 'domain');
        if ($limit === null || $domains === []) {
            return null;
        }
        $held = (int) $this->account->sites
            ->whereIn('domain', array_column($foresight->reach->with(Extent::Whole), 'domain'))
            ->sum('bytes');
        if ($held >= $limit) {
            return sprintf('%s lie there already, so with this limit it could store nothing.', Bytes::words($held));
        }
        $largest = DB::table('sites')
            ->join('deployments', 'deployments.site_id', '=', 'sites.id')
            ->join('packages', 'packages.id', '=', 'deployments.package_id')
            ->whereIn('sites.domain', $domains)
            ->where('sites.account_id', $this->account->id)
            ->whereNull('sites.removed_at')
            ->orderByDesc('packages.bytes')
            ->first([
                'packages.name',
                'packages.version',
                'packages.bytes as needs',
                'sites.bytes as has',
                'sites.domain',
            ]);
        if ($largest === null || (int) $largest->needs + (int) $largest->has <= $limit) {
            return null;
        }

        return sprintf(
            '%s %s needs %s beside the %s that %s has now; with this limit it would not fit.',
            $largest->name,
            $largest->version,
            Bytes::words((int) $largest->needs),
            Bytes::words((int) $largest->has),
            $largest->domain,
        );
    }

    private function space(): ?int
    {
        $typed = trim($this->typed['megabytes']);
        if ($typed === '') {
            return null;
        }
        if (! ctype_digit($typed) || (int) $typed < 1 || strlen($typed) > 7) {
            $this->wrong['megabytes'] = 'Space is a whole number of MB from 1, or nothing for no limit.';

            return null;
        }

        return (int) $typed * 1_000_000;
    }

    private function password(PasswordStrength $strength): Secret
    {
        if ($this->typed['password_kind'] !== self::OWN) {
            return (new PasswordMaker)->make(
                PasswordKind::tryFrom($this->typed['password_kind']) ?? PasswordKind::Readable,
            );
        }
        $typed = $this->typed['password'];
        [$bits, $words] = $this->strength($strength);
        if (
            strlen($typed) < self::LEAST_LENGTH
            || strlen($typed) > 128
            || preg_match('/[\x00-\x1f\x7f]/', $typed) === 1
        ) {
            $this->wrong['password'] = 'A password has 12 to 128 characters, without line breaks.';
        } elseif ($bits < PasswordStrength::MINIMUM_BITS) {
            $this->wrong[
                'password'
            ] = "It is worth $bits bits: $words. Take a longer one that nobody would guess, or have one made.";
        }

        return new Secret($typed);
    }
}
