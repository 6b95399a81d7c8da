<?php

declare(strict_types=1);

namespace Tests\App;

use App\FtpUsers\HandOvers;
use App\Http\Middleware\PlainInput;
use App\Models\ApiToken;
use App\Models\Backup;
use App\Models\BulkChange;
use App\Models\ChangeByHand;
use App\Models\ClientRequest;
use App\Models\Errand;
use App\Models\FileDraft;
use App\Models\Person;
use App\Models\SavedView;
use App\Models\SetAside;
use App\Models\Upload;
use App\Plans\Plans;
use App\Sheets\Sheets;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Route;

/**
 * Every route with every field of it, each filled with what nobody means to send. A route that is not named here fails
 * too: whoever adds one says what it takes.
 */
final class EveryRouteTest extends AppTestCase
{
    /** The fields of each route, by method and address. */
    private const FIELDS = [
        'GET signed-in' => [],
        'GET sign-in' => [],
        'POST sign-in' => ['email', 'password'],
        'GET client-sheet' => [],
        'POST client-sheet' => ['code'],
        'GET client-sheet/{given}' => [],
        'GET client-sheet/{given}.json' => [],
        'GET sheets' => ['client', 'site', 'page'],
        'POST sheets' => ['client', 'site', 'from', 'until'],
        'GET sheets/{sheet}' => [],
        'GET sheets/{sheet}/print' => [],
        'GET sheets/{sheet}.json' => [],
        'POST sheets/{sheet}/links' => ['days'],
        'POST sheet-links/{given}/withdraw' => [],
        'POST deployments/{deployment}/sheet' => [],
        'GET hand-over' => [],
        'POST hand-over' => ['by', 'code'],
        'GET sign-in/code' => [],
        'POST sign-in/code' => ['code'],
        'GET sign-in/again' => [],
        'POST sign-in/again' => ['password', 'code'],
        'GET welcome' => [],
        'POST welcome' => ['code', 'password', 'password_confirmation'],
        'GET me' => [],
        'POST me' => ['time_zone', 'clock', 'scheme', 'mail', 'kinds'],
        'POST me/password' => ['password', 'password_confirmation'],
        'GET me/second-factor' => [],
        'POST me/second-factor' => ['code'],
        'POST me/second-factor/end' => [],
        'POST me/recovery-codes' => [],
        'POST me/sessions/end' => ['which'],
        'GET people' => ['closed', 'page', 'q'],
        'GET people/new' => [],
        'POST people' => self::PERSON,
        'GET people/{person}' => [],
        'POST people/{person}' => ['revision', ...self::PERSON],
        'POST people/{person}/close' => ['revision'],
        'POST people/{person}/open' => ['revision'],
        'POST people/{person}/renew-password' => ['revision'],
        'POST people/{person}/drop-second-factor' => ['revision'],
        'GET requests' => ['page'],
        'POST requests' => ['kind', 'site', 'words'],
        'GET requests/{asked}' => [],
        'POST requests/{asked}/answer' => ['answer'],
        'GET backups/{backup}/zip' => ['paths', 'part'],
        'POST backups/{backup}/zip' => ['paths', 'part'],
        'GET backups/{backup}' => ['in'],
        'GET sites/{site}/files/{path?}' => self::FILES,
        'GET accounts/{account}/files/{path?}' => self::FILES,
        'GET file-changes/{byhand}' => [],
        'POST sites/{site}/file-changes' => self::FILE_CHANGE,
        'POST accounts/{account}/file-changes' => self::FILE_CHANGE,
        'POST sites/{site}/file-uploads' => ['at'],
        'POST sites/{site}/start-page' => ['at'],
        'POST deployments/discard' => ['plans'],
        'POST deployments/{deployment}/plan-again' => [],
        'POST sites/{site}/file-downloads' => ['at', 'do', 'names'],
        'POST accounts/{account}/file-downloads' => ['at', 'do', 'names'],
        'POST sites/{site}/file-visitors' => ['at', 'names'],
        'POST accounts/{account}/file-visitors' => ['at', 'names'],
        'POST file-changes/{byhand}/start' => ['mend'],
        'GET file-changes/{byhand}/page' => [],
        'GET sites/{site}/look-file/{path}' => [],
        'GET accounts/{account}/look-file/{path}' => [],
        'GET sites/{site}/compare-file/{path}' => ['with'],
        'GET accounts/{account}/compare-file/{path}' => ['with'],
        'GET file-searches/{search}' => [],
        'POST sites/{site}/file-searches' => self::SEARCH,
        'POST accounts/{account}/file-searches' => self::SEARCH,
        'GET rights-checks/{check}' => [],
        'POST sites/{site}/rights-checks' => [],
        'POST rights-checks/{check}' => ['names'],
        'GET sites/{site}/edit-file/{path}' => [],
        'GET accounts/{account}/edit-file/{path}' => [],
        'POST file-drafts/{draft}' => ['content', 'do', 'files', 'reason'],
        'POST file-drafts/{draft}/keep' => ['content'],
        'POST file-changes/{byhand}/undo' => [],
        'GET ftp-users/{user}/sheet' => [],
        'POST sign-out' => [],
        'GET /' => ['kind', 'as', 'group', 'words', 'from'],
        'GET shelves' => ['as', 'group', 'words', 'from'],
        'GET find' => ['q'],
        'GET choose/sites' => ['q', 'package'],
        'GET choose/packages' => ['q', 'site'],
        'GET downloads/{errand}' => [],
        'GET errands/{errand}' => [],
        'POST errands/{errand}/cancel' => [],
        'GET accounts' => ['q', 'group', 'client', 'tag', 'only', 'sort', 'down', 'page', 'protocol'],
        'GET accounts/new' => ['tried'],
        'GET accounts/import' => [],
        'POST accounts/import' => ['text', 'list'],
        'GET accounts/import/{name}' => ['columns'],
        'POST accounts/import/{name}' => ['columns'],
        'GET accounts/export' => [],
        'POST accounts/export' => [],
        'POST accounts/export-secrets' => ['passphrase', 'passphrase_again'],
        'POST accounts/letter' => ['letter', 'number'],
        'POST accounts' => self::ACCOUNT,
        'GET accounts/{account}/edit' => ['tried'],
        'POST accounts/{account}' => self::ACCOUNT,
        'GET accounts/{account}' => [],
        'POST accounts/{account}/connect' => [],
        'GET accounts/{account}/ladder' => [],
        'POST accounts/{account}/renew-password' => [],
        'GET accounts/{account}/anew' => ['to'],
        'POST accounts/{account}/anew/start' => ['to'],
        'POST accounts/{account}/anew' => ['to', 'sites', 'users', 'directories'],
        'POST accounts/{account}/remedy' => ['change', 'value'],
        'GET accounts/{account}/sites/new' => [],
        'POST accounts/{account}/sites' => self::SITE_FORM,
        'GET sites/{site}' => [],
        'GET sites/{site}/edit' => [],
        'GET removals' => [],
        'GET removals/{kind}/{id}' => [],
        'POST removals/{kind}/{id}' => ['users', 'keep'],
        'POST removals/{kind}/{id}/undo' => [],
        'POST sites/{site}' => self::SITE_FORM,
        'POST sites/{site}/find-root' => [],
        'POST sites/{site}/prove-root' => ['directory'],
        'POST sites/{site}/php' => [],
        'POST sites/{site}/open-addresses' => [],
        'GET accounts/{account}/foresight' => self::USER,
        'POST accounts/{account}/cancel' => [],
        'GET accounts/{account}/tree' => ['at', 'look', 'errand'],
        'GET accounts/{account}/map' => ['open', 'closed'],
        'GET accounts/{account}/reach.csv' => [],
        'GET reach' => ['only', 'q', 'page', 'idle'],
        'GET reach.csv' => ['only', 'q', 'page', 'idle'],
        'GET accounts/{account}/ftp-users/new' => ['directory'],
        'POST accounts/{account}/ftp-users' => self::USER,
        'GET accounts/{account}/login-check' => self::USER,
        'POST accounts/{account}/password-check' => self::USER,
        'GET ftp-users' => ['only', 'q', 'page'],
        'GET ftp-users/{user}' => [],
        'GET ftp-users/{user}/state' => [],
        'POST ftp-users/{user}/hand-over' => ['how', 'hours'],
        'POST ftp-users/{user}/prove' => [],
        'POST ftp-users/{user}/renew' => [],
        'POST ftp-users/{user}/change' => ['directory', 'megabytes'],
        'POST ftp-users/{user}/closing' => ['ends', 'closes', 'reason'],
        'POST ftp-users/{user}/reopen' => ['ends', 'closes', 'reason'],
        'POST ftp-users/{user}/close' => [],
        'POST ftp-users/{user}/remove' => [],
        'POST ftp-users/{user}/give-up' => [],
        'POST hand-overs/{link}/withdraw' => [],
        'POST bulk' => ['kind', 'closes', 'users'],
        'GET bulk/{change}' => [],
        'GET bulk/{change}/live' => [],
        'POST bulk/{change}/start' => [],
        'POST sites/{site}/destinations' => ['name', 'directory'],
        'POST destinations/{destination}/remove' => [],
        'GET clients/{client}' => [],
        'POST clients/{client}' => ['name', 'colour', 'group', 'notes'],
        'POST views' => ['name', 'query'],
        'POST views/{view}/remove' => [],
        'POST api/packages' => ['package'],
        'POST api/inspections' => ['package'],
        'OPTIONS uploads' => [],
        'POST uploads' => [],
        'HEAD uploads/{upload}' => [],
        'PATCH uploads/{upload}' => [],
        'DELETE uploads/{upload}' => [],
        'GET uploads/{upload}/finish' => [],
        'GET me/tokens' => [],
        'POST me/tokens' => ['name', 'package_name', 'scope', 'days'],
        'POST me/tokens/{token}/revoke' => [],
        'GET package-types' => [],
        'GET package-types/{type}.yaml' => [],
        'GET package-types/new' => [],
        'GET package-types/{type}/edit' => [],
        'POST package-types' => ['yaml', 'file'],
        'POST package-types/{type}/remove' => [],
        'GET packages' => ['q', 'sort'],
        'GET packages/{package}/compare/{other}' => ['file'],
        'GET packages/let-go' => ['packages', 'this'],
        'POST packages/let-go' => ['packages'],
        'POST packages' => ['package', 'site'],
        'GET packages/{package}' => ['site'],
        'GET packages/{package}/references' => ['in', 'file'],
        'GET packages/{package}/landing' => ['site', 'in', 'from'],
        'POST packages/{package}/type' => ['type'],
        'POST packages/{package}/name' => ['name', 'version'],
        'GET packages/{package}/mend' => ['what'],
        'POST packages/{package}/mend' => ['what'],
        'GET deployments' => [],
        'GET deployments/new' => ['site', 'package'],
        'POST deployments' => ['site', 'package', 'user', 'place', 'reason'],
        'GET deployments/{deployment}' => ['show', 'name'],
        'GET deployments/{deployment}/live' => [],
        'GET deployments/{deployment}/plan' => ['in', 'from', 'show', 'name'],
        'GET deployments/{deployment}/file' => ['path'],
        'GET deployments/{deployment}/side' => ['path', 'side'],
        'POST deployments/{deployment}/settings' => ['connections', 'proof_stops', 'proof', 'way'],
        'POST deployments/{deployment}/prove' => [],
        'POST deployments/{deployment}/overrule' => ['paths', 'reason'],
        'POST deployments/{deployment}/folder' => ['meant'],
        'POST deployments/{deployment}/correct' => [],
        'POST deployments/{deployment}/answers' => ['scope', 'choice', 'show', 'name'],
        'POST deployments/{deployment}/start' => [],
        'POST deployments/{deployment}/again' => [],
        'POST deployments/{deployment}/pause' => [],
        'POST deployments/{deployment}/go-on' => [],
        'POST deployments/{deployment}/retry' => ['mend'],
        'POST deployments/{deployment}/undo' => [],
        'POST deployments/{deployment}/restore' => [],
        'POST deployments/{deployment}/cancel' => [],
        'POST deployments/{deployment}/accept' => [],
        'GET backups' => ['site'],
        'POST store/sweep' => [],
        'POST store/aside/empty' => [],
        'POST backups/overdue' => [],
        'GET sites/{site}/set-aside' => [],
        'POST set-aside/{aside}/restore' => [],
        'POST sites/{site}/backups' => [],
        'POST backups/{backup}/restore' => ['to', 'paths', 'part'],
        'POST backups/{backup}/restore-database' => ['database'],
        'POST backups/{backup}/cancel' => [],
        'POST backups/{backup}/accept' => [],
        'POST backups/{backup}/pin' => ['because'],
        'POST backups/{backup}/unpin' => [],
        'POST backups/{backup}/rehearse' => [],
        'POST sites/{site}/rehearsals' => [],
        'GET backups/sites' => ['page'],
        'GET sites/{site}/over-time' => ['days', 'until'],
        'GET sites/{site}/moments' => ['a', 'b', 'a_at', 'b_at'],
        'GET sites/{site}/moments/text' => ['a', 'b', 'path'],
        'GET sites/{site}/over-time.csv' => ['days', 'until'],
        'GET sites/{site}/backup-rule' => self::BACKUP_RULE,
        'POST sites/{site}/backup-rule' => ['for', ...self::BACKUP_RULE],
        'GET record' => ['q', 'before'],
    ];

    private const BACKUP_RULE = [
        'hours',
        'quiet_from',
        'quiet_until',
        'zone',
        'hourly',
        'daily',
        'weekly',
        'monthly',
        'yearly',
        'rehearse_days',
    ];

    private const PERSON = ['name', 'email', 'role', 'client_id', 'may_fetch_backups'];

    private const ACCOUNT = [
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
        'act',
    ];

    private const SITE_FORM = [
        'domain',
        'base_url',
        'document_root',
        'application_root',
        'start_pages',
        'aliases',
        'mounts',
        'proof_decides',
        'shows_files',
        'client',
        'notes',
    ];

    private const DRAFT = [
        'path' => '/index.html',
        'path_hash' => 'none',
        'opened_at' => '2026-11-26 12:00:00',
        'here_at' => '2026-11-26 12:00:00',
    ];

    private const FILES = [
        'chosen',
        'down',
        'errand',
        'from',
        'hidden',
        'last',
        'look',
        'name',
        'side',
        'sort',
    ];

    private const FILE_CHANGE = [
        'at',
        'below',
        'called',
        'directories',
        'do',
        'files',
        'folder',
        'names',
        'private',
        'to_site',
        'version',
    ];

    private const SEARCH = [
        'at',
        'exact',
        'from',
        'largest',
        'name',
        'smallest',
        'text',
        'text_up_to',
        'until',
    ];

    private const USER = [
        'name',
        'directory',
        'word',
        'password',
        'megabytes',
        'ends',
        'closes',
        'reason',
        'purpose',
        'owner',
        'read_only',
        'keep',
        'act',
    ];

    private int $sent = 0;

    /** @return array<string, mixed> */
    private static function hostile(): array
    {
        return [
            'a list' => ['x'],
            'a list of lists' => ['x' => ['y' => ['z']]],
            'NUL' => "/a\0b",
            'bytes that are no text' => "/caf\xe9 \xff\xfe",
            'cut text' => "\xe2\x82",
            '300 characters' => '/'.str_repeat('ä', 300),
            'more than a field is for' => str_repeat('a', 100_000),
            'twenty digits' => '99999999999999999999',
            'less than nothing' => '-9223372036854775808',
            'a broken number' => '1e400',
            'a day that is none' => '2026-02-31 25:61',
            'a day far off' => '999999-01-01T00:00',
            'a year long gone' => '-0001-11-30 00:00:00',
            'a way up' => '/../../etc/passwd',
            'marks of direction' => "/\u{202e}gpj.exe\u{2066}",
            'a line end' => "/a\r\nDELE b",
            'a quotation' => "'\"><script>\\",
            'a pattern' => '%_%[a-z]*?',
            'nothing' => '',
        ];
    }

    public function test_nothing_that_is_sent_makes_an_error_of_ours(): void
    {
        config(['cellarium.errand_seconds' => 0, 'cellarium.user_patience' => 0]);
        $user = $this->ftpUser('job', '/www/site.example');
        $deployed = $this->deployed();
        Queue::fake();
        $plan = app(Plans::class)->deploy($this->site, $this->package(['index.html' => 'x'], 'x-1.zip'));
        app(HandOvers::class)->link($user, 8, $this->person);
        $this->actingAs($this->person);
        $view = SavedView::create(['person_id' => $this->person->id, 'name' => 'mine', 'query' => 'q=a']);
        $errand = Errand::create([
            'kind' => 'find_root',
            'state' => 'waiting',
            'person_id' => $this->person->id,
            'site_id' => $this->site->id,
            'back' => '/',
            'given' => [],
        ]);
        $change = BulkChange::create([
            'person_id' => $this->person->id,
            'kind' => 'close',
            'state' => 'draft',
            'items' => [],
        ]);
        $destination = $this->site->destinations()->create(['name' => 'blog', 'directory' => '/www/site.example/blog']);
        $other = Person::create([
            'name' => 'Wren Tideway',
            'email' => 'tideway@marramtide.example',
            'password' => 'a-word-for-tests',
            'role' => 'helper',
        ]);
        $sheet = app(Sheets::class)->ofDeployment($deployed, 'UTC');
        app(Sheets::class)->link($sheet, 7);
        $ids = [
            'account' => $this->account->id,
            'site' => $this->site->id,
            'user' => $user->id,
            'client' => $this->account->client_id,
            'package' => $deployed->package_id,
            'other' => $deployed->package_id,
            'deployment' => $plan->id,
            'backup' => Backup::firstOrFail()->id,
            'aside' => SetAside::create([
                'site_id' => $this->site->id,
                'deployment_id' => $deployed->id,
                'path' => 'old.html',
                'sha256' => hash('sha256', 'old'),
                'bytes' => 3,
                'set_aside_at' => now(),
                'held_until' => now()->addDay(),
            ])->id,
            'byhand' => ChangeByHand::create([
                'account_id' => $this->account->id,
                'site_id' => $this->site->id,
                'person_id' => $this->person->id,
                'action' => 'new_folder',
                'state' => 'done',
                'directory' => '/',
                'title' => 'New folder dials',
                'asked' => [],
            ])->id,
            'path' => 'index.html',
            'draft' => FileDraft::create(self::DRAFT + [
                'account_id' => $this->account->id,
                'person_id' => $this->person->id,
            ])->id,
            'type' => 'built-site',
            'upload' => Upload::create([
                'person_id' => $this->person->id,
                'file_name' => 'stones.zip',
                'length' => 1,
                'expires_at' => now()->addDay(),
            ])->id,
            'token' => ApiToken::create([
                'person_id' => $this->person->id,
                'name' => 'a pipeline',
                'scope' => 'deliver_packages',
                'sha256' => hash('sha256', 'token'),
            ])->id,
            'view' => $view->id,
            'errand' => $errand->id,
            'search' => $this->done('find_files')->id,
            'check' => $this->done('check_rights')->id,
            'change' => $change->id,
            'link' => 1,
            'sheet' => $sheet->id,
            'given' => 1,
            'destination' => $destination->id,
            'name' => str_repeat('a', 32),
            'kind' => 'sites',
            'id' => $this->site->id,
            'person' => $other->id,
            'asked' => ClientRequest::create([
                'client_id' => $this->account->client_id,
                'person_id' => $other->id,
                'kind' => 'change',
                'words' => 'Please.',
            ])->id,
        ];
        $bad = [];
        $seen = [];
        foreach (Route::getRoutes()->getRoutes() as $route) {
            $method = in_array('GET', $route->methods(), true) ? 'GET' : $route->methods()[0];
            $key = "$method {$route->uri()}";
            $seen[$key] = true;
            self::assertArrayHasKey($key, self::FIELDS, "$key is not known here: name the fields it takes.");
            foreach ($this->requests($method, $route->uri(), $ids) as $what => [$address, $data]) {
                // Each meets the same world, which stays small.
                DB::beginTransaction();
                $status = $this->send($method, $address, $data);
                DB::rollBack();
                $status < 500 ?: $bad[] = "$status $key, $what";
            }
        }
        self::assertSame([], array_diff_key(self::FIELDS, $seen), 'these are no routes any more');
        self::assertSame([], $bad);
    }

    /**
     * @param  array<string, int|string>  $ids
     * @return \Generator<string, array{string, array<string, mixed>}>
     */
    private function requests(string $method, string $uri, array $ids): \Generator
    {
        $address = '/'
            .ltrim(
                (string) preg_replace_callback(
                    '/\{(\w+)\??\}/',
                    static fn (array $match): string => (string) $ids[$match[1]],
                    $uri,
                ),
                '/',
            );
        // What ends or removes something is asked for with wrong numbers only; the rest would have nothing left to try.
        $keeps = preg_match('#/(remove|sign-out|start|close|give-up|withdraw)\z|\Asign-out\z#', $uri) !== 1;
        if ($keeps) {
            yield 'as it is' => [$address, []];
            foreach (self::FIELDS["$method $uri"] as $number => $field) {
                foreach (self::hostile() as $name => $value) {
                    if ($number > 0 && PlainInput::refuses($field, $value)) {
                        continue; // Before any route is asked, which is seen at its first field.
                    }
                    yield "$name in $field" => [$address, [$field => $value]];
                }
            }
        }
        if (str_contains($uri, '{')) {
            foreach (
                ['0', '-1', 'abc', '99999999999999999999', '1%00', '%FF', '1%27', str_repeat('9', 300)] as $number
            ) {
                yield "$number in its address" => ['/'.preg_replace('/\{\w+\??\}/', $number, $uri, 1), []];
            }
        }
    }

    /** @param  array<string, mixed>  $data */
    private function send(string $method, string $address, array $data): int
    {
        if ($method === 'GET') {
            $response = $this->get($address.($data === [] ? '' : '?'.http_build_query($data)));
        } else {
            $response = $this->post($address, $data + $this->rightValues($address));
        }
        ob_start();
        $response->baseResponse instanceof \Symfony\Component\HttpFoundation\StreamedResponse
            && $response->baseResponse->sendContent();
        ob_end_clean();

        return $response->getStatusCode();
    }

    /** A question about the site that a worker has answered. */
    private function done(string $kind): Errand
    {
        return Errand::create([
            'kind' => $kind,
            'state' => 'done',
            'site_id' => $this->site->id,
            'person_id' => $this->person->id,
            'back' => '/',
            'given' => ['at' => $this->site->document_root],
        ]);
    }

    /** @return array<string, mixed> what the other fields of a form hold, so that the wrong one is come to */
    private function rightValues(string $address): array
    {
        // Another name each time, so that none is refused for being known already.
        $name = 'fuzz'.(++$this->sent);

        return match (true) {
            preg_match('#\A/accounts(/\d+)?\z#', $address) === 1 => [
                'client' => (string) $this->account->client_id,
                'protocol' => 'ftps',
                'host' => 'fuzz.example',
                'login' => $name,
                'password' => 'x',
                'act' => 'keep',
            ],
            str_contains($address, '/sites') && ! str_contains($address, 'backups') => [
                'domain' => "$name.example",
                'document_root' => '/www',
                'start_pages' => 'index.html',
                'name' => $name,
                'directory' => '/www/site.example/fuzz',
            ],
            str_ends_with($address, '/ftp-users') => [
                'name' => $name,
                'directory' => '/www/site.example',
                'ends' => 'never',
                'reason' => 'a test',
                'purpose' => 'a test',
            ],
            str_ends_with($address, '/backup-rule') => [
                'for' => 'site',
                'hours' => '24',
                'quiet_from' => '01:00',
                'quiet_until' => '05:00',
                'zone' => 'UTC',
                'hourly' => '0',
                'daily' => '7',
                'weekly' => '4',
                'monthly' => '6',
                'yearly' => '1',
            ],
            $address === '/deployments' => ['site' => $this->site->id, 'package' => 1],
            $address === '/bulk' => ['kind' => 'move', 'users' => ['1'], 'closes' => '2030-01-01T00:00'],
            $address === '/packages' => [
                'package' => UploadedFile::fake()->createWithContent("\u{202e}x.zip", 'no archive'),
            ],
            $address === '/views' => ['name' => $name, 'query' => 'q=a'],
            preg_match('#\A/people(/\d+)?\z#', $address) === 1 => [
                'name' => 'Fuzz',
                'email' => "$name@marramtide.example",
                'role' => 'helper',
                'revision' => '0',
            ],
            $address === '/requests' => ['kind' => 'change', 'words' => 'a test', 'site' => (string) $this->site->id],
            $address === '/me' => ['clock' => '24', 'scheme' => 'system', 'mail' => 'none'],
            str_starts_with($address, '/clients') => ['name' => 'Fuzz', 'colour' => '#112233'],
            $address === '/sign-in' => ['email' => 'who@marramtide.example', 'password' => 'x'],
            $address === '/hand-over' => ['by' => 'who', 'code' => 'x'],
            default => [],
        };
    }
}
