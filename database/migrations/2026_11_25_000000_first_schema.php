<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Everything that is stored in the database, by idea; sizes are bytes, times are those of the application's zone. */
return new class extends Migration
{
    public function up(): void
    {
        $this->framework();
        $this->clients();
        $this->people();
        $this->accounts();
        $this->sites();
        $this->ftpUsers();
        $this->packages();
        $this->backups();
        $this->deployments();
        $this->errands();
        $this->files();
        $this->sheets();
        $this->evidence();
    }

    private function framework(): void
    {
        Schema::create('sessions', static function (Blueprint $table): void {
            $table->string('id')->primary();
            $table->foreignId('user_id')->nullable()->index();
            $table->string('ip_address', 45)->nullable();
            $table->text('user_agent')->nullable();
            $table->longText('payload');
            $table->integer('last_activity')->index();
        });
        Schema::create('cache', static function (Blueprint $table): void {
            $table->string('key')->primary();
            $table->mediumText('value');
            $table->integer('expiration')->index();
        });
        Schema::create('cache_locks', static function (Blueprint $table): void {
            $table->string('key')->primary();
            $table->string('owner');
            $table->integer('expiration')->index();
        });
        Schema::create('jobs', static function (Blueprint $table): void {
            $table->id();
            $table->string('queue')->index();
            $table->longText('payload');
            $table->unsignedTinyInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });
        Schema::create('failed_jobs', static function (Blueprint $table): void {
            $table->id();
            $table->string('uuid')->unique();
            $table->text('connection');
            $table->text('queue');
            $table->longText('payload');
            $table->longText('exception');
            $table->timestamp('failed_at')->useCurrent();
        });
    }

    private function people(): void
    {
        Schema::create('people', static function (Blueprint $table): void {
            $table->id();
            $table->string('name');
            $table->string('email')->unique();
            $table->string('password')->nullable();
            $table->string('role', 20);
            $table->foreignId('client_id')->nullable()->constrained();
            $table->boolean('may_fetch_backups')->default(false);
            $table->text('second_factor')->nullable();
            $table->unsignedBigInteger('second_factor_step')->default(0);
            $table->json('recovery_codes')->default('[]');
            $table->dateTime('closed_at')->nullable();
            $table->dateTime('seen_at')->nullable();
            $table->json('settings')->default('{}');
            $table->unsignedInteger('revision')->default(0);
            $table->timestamps();
        });
        Schema::create('one_time_links', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people')->cascadeOnDelete();
            $table->string('hash', 64)->unique();
            $table->dateTime('expires_at');
            $table->dateTime('used_at')->nullable();
            $table->timestamps();
        });
        Schema::create('mailed_concerns', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people')->cascadeOnDelete();
            $table->string('concern', 64);
            $table->unique(['person_id', 'concern']);
        });
        Schema::create('client_requests', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('client_id')->constrained();
            $table->foreignId('person_id')->constrained('people');
            $table->unsignedBigInteger('site_id')->nullable();
            $table->string('kind', 20);
            $table->text('words');
            $table->dateTime('answered_at')->nullable()->index();
            $table->foreignId('answered_by')->nullable()->constrained('people');
            $table->text('answer')->nullable();
            $table->timestamps();
        });
        Schema::create('saved_views', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people')->cascadeOnDelete();
            $table->string('name', 60);
            $table->string('query', 500);
            $table->timestamps();
            $table->unique(['person_id', 'name']);
        });
    }

    private function clients(): void
    {
        Schema::create('clients', function (Blueprint $table): void {
            $table->id();
            $table->string('name');
            $table->string('colour', 7);
            $table->string('group')->default('');
            $table->text('notes')->nullable();
            $this->canBeRemoved($table);
            $table->timestamps();
            $table->unique(['name', 'in_use']);
        });
    }

    private function accounts(): void
    {
        Schema::create('accounts', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('client_id')->constrained();
            $table->string('label')->default('');
            $table->string('company')->default('');
            $table->json('tags')->default('[]');
            $table->text('notes')->nullable();
            // Where and how it is reached.
            $table->string('host')->index();
            $table->unsignedSmallInteger('port');
            $table->string('protocol', 20);
            $table->string('address', 45)->nullable();
            $table->string('known_address', 45)->nullable();
            $table->boolean('active_mode')->default(false);
            $table->string('tls_use', 20)->nullable();
            $table->json('pin')->nullable();
            $table->string('start_directory', 1000)->nullable();
            // With what; secrets are encrypted, and bound to where they may be sent.
            $table->string('login');
            $table->text('secret');
            $table->text('next_secret')->nullable();
            $table->string('secret_for', 64)->nullable();
            $table->text('private_key')->nullable();
            $table->string('key_kind')->nullable();
            $table->string('key_fingerprint')->nullable();
            // The host's control service, and how its FTP users sign in.
            $table->string('control_url')->nullable();
            $table->text('control_token')->nullable();
            $table->json('login_rules')->nullable();
            $table->string('ftp_protocol', 20)->nullable();
            $table->unsignedSmallInteger('ftp_port')->nullable();
            // What was seen.
            $table->unsignedTinyInteger('connections_most')->nullable();
            $table->dateTime('connections_seen_at')->nullable();
            $table->unsignedBigInteger('space_used')->nullable();
            $table->unsignedBigInteger('space_limit')->nullable();
            $table->json('tree')->nullable();
            $table->json('features')->nullable();
            $table->json('ladder')->nullable();
            $table->unsignedInteger('latency_ms')->nullable();
            $table->string('trouble', 40)->nullable()->index();
            $table->dateTime('looked_at')->nullable();
            $table->dateTime('climbing_at')->nullable();
            $table->dateTime('reached_at')->nullable();
            $table->dateTime('tried_at')->nullable();
            $table->dateTime('used_at')->nullable()->index();
            $this->canBeRemoved($table);
            $table->timestamps();
            $table->unique(['host', 'port', 'login', 'in_use']);
        });
    }

    private function sites(): void
    {
        Schema::create('sites', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained();
            $table->foreignId('client_id')->nullable()->constrained();
            $table->string('domain');
            $table->string('base_url');
            $table->string('document_root', 1000);
            // Above it, where an application's public folder is the document root; all of it is compared and backed up.
            $table->string('application_root', 1000)->nullable();
            $table->json('aliases')->default('[]');
            $table->json('mounts')->default('[]');
            // Systems, themes and extensions that were found there at the last look.
            $table->json('installed')->default('[]');
            // Which PHP it said that it runs, with its extensions, and when.
            $table->json('php')->nullable();
            $table->json('start_pages');
            $table->json('kept');
            $table->text('notes')->nullable();
            $table->json('candidates')->nullable();
            $table->string('token', 1100)->nullable();
            $table->boolean('leads_elsewhere')->default(false);
            // Whether its client's people may look at its files.
            $table->boolean('shows_files')->default(false);
            $table->unsignedBigInteger('bytes')->nullable();
            $table->boolean('placeholder')->nullable();
            $table->string('placeholder_file')->nullable();
            $table->dateTime('root_proven_at')->nullable();
            $table->dateTime('live_proven_at')->nullable();
            $table->dateTime('last_backup_at')->nullable();
            // When the promise is broken if no backup is taken until then; and the same for a rehearsal.
            $table->dateTime('backup_promised_at')->nullable()->index();
            $table->dateTime('rehearsed_at')->nullable();
            $table->dateTime('rehearsal_promised_at')->nullable()->index();
            // Why the last one failed; null where it did not.
            $table->string('rehearsal_trouble', 1000)->nullable();
            $table->unsignedBigInteger('last_deployment_id')->nullable();
            $this->canBeRemoved($table);
            $table->dateTime('backups_until')->nullable();
            $table->timestamps();
            $table->unique(['domain', 'in_use']);
        });
        // Where a site was before it was made anew in the account that it is in.
        Schema::create('site_stays', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained()->cascadeOnDelete();
            $table->foreignId('account_id')->constrained();
            $table->string('root', 1000);
            $table->dateTime('until', 3);
        });
        Schema::create('destinations', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained()->cascadeOnDelete();
            $table->string('name', 60);
            $table->string('directory', 1000);
            $table->timestamps();
            $table->unique(['site_id', 'name']);
        });
    }

    private function ftpUsers(): void
    {
        Schema::create('ftp_users', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('login');
            $table->text('secret')->nullable();
            $table->text('next_secret')->nullable();
            $table->boolean('forgets')->default(false);
            $table->string('directory', 1000);
            $table->unsignedBigInteger('space_limit')->nullable();
            $table->boolean('read_only')->default(false);
            $table->string('purpose')->default('');
            $table->string('state', 20);
            $table->json('pending')->nullable();
            $table->string('ends', 10)->default('time');
            $table->string('ends_reason', 200)->default('');
            $table->dateTime('closes_at')->nullable();
            $table->dateTime('closed_at')->nullable();
            $table->dateTime('reach_proven_at')->nullable();
            $table->dateTime('proof_failed_at')->nullable();
            $table->dateTime('refusal_proven_at')->nullable();
            $table->dateTime('handed_over_at')->nullable();
            $table->dateTime('used_at')->nullable();
            $table->string('seen_use', 40)->nullable();
            $table->dateTime('tried_at')->nullable();
            $table->dateTime('proving_at')->nullable();
            $table->dateTime('found_at')->nullable();
            $table->json('probe')->nullable();
            $table->text('trouble')->nullable();
            $table->timestamps();
            $table->index(['state', 'closes_at']);
            // A login that was removed may be made again; of those that exist there is one of each.
            $table->string('live_login')->nullable()->virtualAs("IF(state = 'removed', NULL, login)");
            $table->unique(['account_id', 'live_login']);
        });
        Schema::create('hand_overs', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('ftp_user_id')->constrained()->cascadeOnDelete();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('finder', 64)->unique();
            $table->text('sealed')->nullable();
            $table->dateTime('expires_at');
            $table->dateTime('opened_at')->nullable();
            $table->string('opened_by', 100)->nullable();
            $table->string('opened_from', 45)->nullable();
            $table->string('opened_with', 200)->nullable();
            $table->dateTime('withdrawn_at')->nullable();
            $table->timestamps();
        });
        Schema::create('bulk_changes', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('kind', 20);
            $table->dateTime('closes_at')->nullable();
            $table->string('state', 20);
            $table->json('items');
            $table->timestamps();
        });
    }

    private function packages(): void
    {
        Schema::create('packages', static function (Blueprint $table): void {
            $table->id();
            $table->string('name')->index();
            $table->string('version')->nullable();
            // Whether a person typed the two; looking through it again leaves them then.
            $table->boolean('is_named')->default(false);
            $table->string('file_name');
            $table->string('sha256', 64)->unique();
            // Null for what was made here from another one.
            $table->unsignedBigInteger('packed_bytes')->nullable();
            $table->foreignId('mended_from')->nullable()->constrained('packages');
            $table->json('mends')->nullable();
            $table->unsignedBigInteger('bytes');
            $table->unsignedInteger('files');
            $table->string('wrapper')->nullable();
            $table->string('start_page')->nullable();
            // What kind it is, by which signs; and those it may be where several fit equally well.
            $table->string('type', 40)->nullable()->index();
            $table->json('type_evidence')->nullable();
            $table->json('type_choices')->nullable();
            $table->json('findings');
            $table->boolean('stops');
            // Its row stays for the deployments there were; its files do not.
            $table->dateTime('let_go_at')->nullable()->index();
            $table->timestamps();
        });
        // Kinds of packages as the agency has them; those that ship lie in resources/package-types.
        Schema::create('package_types', static function (Blueprint $table): void {
            $table->string('id', 40)->primary();
            $table->text('yaml');
            $table->timestamps();
        });
        // What a build pipeline signs in with; of the token itself only its hash is here.
        Schema::create('api_tokens', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people');
            $table->string('name', 80);
            $table->string('scope', 40);
            // Packages of this name only; null for any.
            $table->string('package_name')->nullable();
            $table->string('sha256', 64)->unique();
            $table->dateTime('expires_at')->nullable();
            $table->dateTime('used_at')->nullable();
            $table->dateTime('revoked_at')->nullable();
            $table->timestamps();
        });
        // Files that come in pieces; how far each has come is its size on the disk.
        Schema::create('uploads', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people');
            $table->foreignId('site_id')->nullable()->constrained();
            $table->string('file_name');
            $table->unsignedBigInteger('length');
            // The directory it goes to, where it is files by hand and no package.
            $table->string('into', 4096)->nullable();
            $table->foreignId('errand_id')->nullable();
            $table->dateTime('expires_at')->index();
            $table->timestamps();
        });
        // Apart from its package: a list of packages must not carry every name in every one of them.
        Schema::create('package_manifests', static function (Blueprint $table): void {
            $table->foreignId('package_id')->primary()->constrained();
            $table->longText('manifest');
            // Which file refers to which, for the drawing.
            $table->longText('links');
            // Whose it says it is.
            $table->json('traits');
        });
        // Titles and files that tell one site from another, to find what has them too.
        Schema::create('package_marks', static function (Blueprint $table): void {
            $table->foreignId('package_id')->constrained();
            $table->char('mark', 32);
            $table->primary(['package_id', 'mark']);
            $table->index(['mark', 'package_id']);
        });
    }

    private function backups(): void
    {
        // Reading all contents back, a part each night.
        Schema::create('store_rounds', static function (Blueprint $table): void {
            $table->id();
            $table->unsignedSmallInteger('days');
            $table->string('next', 64)->nullable();
            $table->unsignedBigInteger('files')->default(0);
            $table->unsignedBigInteger('bytes')->default(0);
            $table->unsignedBigInteger('sealed_anew')->default(0);
            $table->dateTime('ended_at')->nullable();
            $table->timestamps();
        });
        Schema::create('damaged_contents', static function (Blueprint $table): void {
            $table->id();
            $table->char('sha256', 64)->unique();
            // Backups and packages that hold it: what, and the path in it.
            $table->json('held_in');
            $table->dateTime('mended_at')->nullable();
            $table->string('mended_from', 1000)->nullable();
            $table->string('trouble', 1000)->nullable();
            $table->timestamps();
        });
        // What the store held on each day, for its growth.
        Schema::create('store_days', static function (Blueprint $table): void {
            $table->id();
            $table->date('day')->unique();
            $table->unsignedBigInteger('files');
            $table->unsignedBigInteger('bytes');
            $table->unsignedBigInteger('room')->nullable();
            // What would be freed by letting go of what no rule keeps, and when that was counted.
            $table->unsignedBigInteger('frees')->nullable();
            $table->dateTime('frees_at')->nullable();
        });
        // How often sites are backed up and what is kept: for one site, for a group of clients, or, without either, for
        // all.
        Schema::create('backup_rules', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->nullable()->unique()->constrained()->cascadeOnDelete();
            $table->string('group')->nullable()->unique();
            $table->unsignedSmallInteger('hours');
            $table->unsignedSmallInteger('quiet_from');
            $table->unsignedSmallInteger('quiet_until');
            $table->string('zone', 60);
            $table->unsignedSmallInteger('hourly');
            $table->unsignedSmallInteger('daily');
            $table->unsignedSmallInteger('weekly');
            $table->unsignedSmallInteger('monthly');
            $table->unsignedSmallInteger('yearly');
            // Days between two rehearsals; null for none promised.
            $table->unsignedSmallInteger('rehearse_days')->nullable();
            $table->timestamps();
        });
        Schema::create('backups', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('reason', 40);
            $table->string('state', 20);
            $table->string('name')->nullable();
            // Where its paths begin; null is the document root.
            $table->string('root', 1000)->nullable();
            $table->unsignedInteger('files')->default(0);
            $table->unsignedBigInteger('bytes')->default(0);
            $table->unsignedInteger('fetched_files')->default(0);
            $table->unsignedBigInteger('fetched_bytes')->default(0);
            $table->unsignedInteger('taken_over_files')->default(0);
            $table->dateTime('taken_over_since')->nullable();
            $table->boolean('collapse_accepted')->default(false);
            $table->json('progress')->nullable();
            $table->dateTime('started_at')->nullable();
            $table->dateTime('cancelled_at')->nullable();
            $table->dateTime('verified_at')->nullable();
            // What had changed since the last look without anybody having done it here.
            $table->json('drift')->nullable();
            // Databases of the same moment, as the host wrote them out; and why there are none.
            $table->json('databases')->nullable();
            $table->string('databases_said', 500)->nullable();
            // Paths that changed while they were read, and were read again.
            $table->json('changed_meanwhile')->nullable();
            // Kept whatever the numbers say, and why.
            $table->string('pinned_because', 200)->nullable();
            $table->foreignId('pinned_by_id')->nullable()->constrained('people');
            $table->dateTime('pinned_at')->nullable();
            // The last time all of it was brought back to a scratch directory, and what came of it.
            $table->dateTime('rehearsed_at')->nullable();
            $table->json('rehearsal')->nullable();
            $table->text('trouble')->nullable();
            $table->timestamps();
            $table->index(['site_id', 'verified_at']);
            // Workers look for what was orphaned every few seconds.
            $table->index(['state', 'started_at']);
        });
    }

    private function deployments(): void
    {
        Schema::create('deployments', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained();
            $table->string('kind', 20);
            $table->string('directory', 1000)->nullable();
            // Where its paths begin; null is the document root.
            $table->string('root', 1000)->nullable();
            $table->foreignId('package_id')->nullable()->constrained();
            $table->foreignId('from_backup_id')->nullable()->constrained('backups');
            // What of the backup was chosen; null is all of it.
            $table->json('paths')->nullable();
            $table->foreignId('undoes_id')->nullable()->constrained('deployments');
            $table->foreignId('ftp_user_id')->nullable()->constrained();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->foreignId('backup_id')->nullable()->constrained();
            $table->foreignId('waits_for_id')->nullable()->constrained('deployments');
            // What the plan was compared with, beside the server: what that deployment left.
            $table->foreignId('compared_with_id')->nullable()->constrained('deployments');
            // What was said to its questions, and what on the server was different from the plan before this one.
            $table->json('answers')->nullable();
            $table->json('changes_since')->nullable();
            // The one file that is restored; null where all are that a deployment set aside.
            $table->unsignedBigInteger('set_aside_id')->nullable();
            // Why it goes there although another site fits better.
            $table->string('reason', 500)->nullable();
            $table->string('state', 20)->index();
            $table->string('stage', 20)->nullable();
            $table->boolean('held')->default(false);
            $table->string('question', 20)->nullable();
            $table->boolean('collapse_accepted')->default(false);
            $table->string('seen', 64)->nullable();
            $table->json('policy');
            $table->json('counts');
            $table->json('progress')->nullable();
            // What each stage moved and how long it took, from which later ones are foretold.
            $table->json('timings')->nullable();
            // For how long visitors found no site meanwhile; null where nobody asked.
            $table->json('outage')->nullable();
            $table->unsignedTinyInteger('connections')->nullable();
            // Null until the run begins where nobody has chosen.
            $table->string('proof_by', 16)->nullable();
            $table->boolean('proof_stops')->default(true);
            // Addresses that the proof fetches at the most; null for every one.
            $table->unsignedInteger('proof_most')->nullable();
            // How it is replaced, whether a person chose that, and what each way would come to.
            $table->string('way', 20)->default('file_by_file');
            $table->boolean('way_chosen')->default(false);
            $table->json('ways')->nullable();
            // Why the old tree of a swap still lies beside the new one; null where nothing does.
            $table->text('left_behind')->nullable();
            $table->dateTime('left_behind_at')->nullable()->index();
            $table->json('proofs')->nullable();
            // What visitors meet beside the bytes: caches, redirects, the certificate.
            $table->json('notes')->nullable();
            $table->unsignedInteger('addresses')->default(0);
            $table->unsignedInteger('read_back')->default(0);
            $table->unsignedInteger('read_back_of')->default(0);
            $table->json('unproven')->nullable();
            $table->json('modes_not_set')->nullable();
            $table->text('trouble')->nullable();
            $table->dateTime('planned_at')->nullable();
            $table->dateTime('started_at', 3)->nullable();
            $table->dateTime('ended_at', 3)->nullable();
            $table->dateTime('cancelled_at')->nullable();
            $table->dateTime('paused_at')->nullable();
            // Until when a run waits for a person to say what becomes of files that could not be sent.
            $table->dateTime('decide_until')->nullable();
            $table->boolean('tries_again')->default(false);
            $table->boolean('mends')->default(false);
            $table->timestamps();
            $table->index(['site_id', 'state']);
        });
        Schema::table('sites', static function (Blueprint $table): void {
            $table->foreign('last_deployment_id')->references('id')->on('deployments')->nullOnDelete();
            // What the server said when the document root was to be swapped for another directory.
            // Whether the last live proof was of a sample.
            $table->boolean('live_sampled')->default(false);
            $table->text('swap_barred')->nullable();
            // For so many minutes a person may decide after a failed proof; null where it goes back by itself.
            $table->unsignedSmallInteger('proof_decides')->nullable();
            $table->dateTime('swap_barred_at')->nullable();
        });
        Schema::create('set_asides', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained();
            // Which of the two took it out.
            $table->foreignId('deployment_id')->nullable()->constrained();
            $table->unsignedBigInteger('change_id')->nullable();
            $table->string('path', 1000);
            $table->string('sha256', 64);
            $table->unsignedBigInteger('bytes');
            $table->unsignedSmallInteger('mode')->nullable();
            $table->dateTime('set_aside_at');
            $table->dateTime('held_until')->index();
            $table->dateTime('restored_at')->nullable();
            $table->timestamps();
            $table->index(['site_id', 'held_until']);
        });
        Schema::table('deployments', static function (Blueprint $table): void {
            $table->foreign('set_aside_id')->references('id')->on('set_asides')->nullOnDelete();
        });
    }

    private function files(): void
    {
        Schema::create('directory_listings', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained()->cascadeOnDelete();
            $table->string('path', 4096);
            $table->string('path_hash', 64);
            $table->dateTime('looked_at', 3)->nullable();
            // Compressed; ten thousand names are some hundred kilobytes.
            $table->mediumText('entries')->nullable();
            $table->json('answers')->nullable();
            $table->text('trouble')->nullable();
            $table->timestamps();
            $table->unique(['account_id', 'path_hash']);
            $table->index('updated_at');
        });
        Schema::create('changes_by_hand', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained();
            $table->foreignId('site_id')->nullable()->constrained();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->foreignId('undoes_id')->nullable()->constrained('changes_by_hand')->nullOnDelete();
            $table->string('action', 20);
            $table->string('state', 12)->index();
            $table->string('directory', 4096);
            $table->string('title', 1000);
            $table->longText('asked');
            $table->longText('steps')->nullable();
            // Pages that would lead nowhere afterwards, and what would mend them.
            $table->longText('refers')->nullable();
            $table->text('held')->nullable();
            $table->unsignedInteger('done')->default(0);
            $table->text('trouble')->nullable();
            $table->json('proof')->nullable();
            $table->dateTime('started_at')->nullable();
            $table->dateTime('ended_at')->nullable();
            $table->dateTime('undone_at')->nullable();
            $table->timestamps();
            $table->index(['account_id', 'ended_at']);
        });
        // Where each person was last among the files of a site or an account, and in which order they looked at them.
        Schema::create('files_remembered', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people')->cascadeOnDelete();
            $table->string('owner', 40);
            $table->string('at', 4096);
            $table->string('sort', 10);
            $table->boolean('down')->default(false);
            $table->boolean('hidden')->default(false);
            $table->unique(['person_id', 'owner']);
        });
        // What each step has done: the path, what it held before, which is kept here for a while, and how it was left.
        Schema::create('file_versions', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained();
            $table->foreignId('change_id')->constrained('changes_by_hand')->cascadeOnDelete();
            $table->unsignedInteger('step');
            $table->string('kind', 20);
            $table->string('path', 4096);
            $table->string('path_hash', 64);
            $table->string('directory_hash', 64);
            // What it held before; null where it was not there.
            $table->string('sha256', 64)->nullable()->index();
            $table->unsignedBigInteger('bytes')->default(0);
            $table->json('before')->nullable();
            $table->json('after')->nullable();
            $table->boolean('mode_refused')->default(false);
            $table->dateTime('at', 3);
            $table->dateTime('held_until')->index();
            $table->unique(['change_id', 'step']);
            $table->index(['account_id', 'path_hash', 'id']);
            $table->index(['account_id', 'directory_hash', 'id']);
        });
        // A text that somebody has open: what they opened, and what they have made of it so far.
        Schema::create('file_drafts', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained()->cascadeOnDelete();
            $table->foreignId('person_id')->constrained('people')->cascadeOnDelete();
            $table->string('path', 4096);
            $table->string('path_hash', 64);
            $table->string('base_sha256', 64)->nullable();
            $table->json('seen')->nullable();
            $table->longText('text')->nullable();
            $table->json('merged')->nullable();
            $table->dateTime('opened_at');
            $table->dateTime('here_at')->index();
            $table->dateTime('typed_at')->nullable();
            $table->timestamps();
            $table->unique(['account_id', 'path_hash', 'person_id']);
        });
        Schema::table('set_asides', static function (Blueprint $table): void {
            $table->foreign('change_id')->references('id')->on('changes_by_hand')->nullOnDelete();
        });
    }

    private function sheets(): void
    {
        // What a client was given; it stays as it was signed, whatever becomes of what it tells of.
        Schema::create('sheets', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('client_id')->constrained();
            $table->foreignId('site_id')->nullable()->constrained();
            $table->foreignId('deployment_id')->nullable()->constrained();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->dateTime('covers_from');
            $table->dateTime('covers_until');
            $table->mediumText('signed');
            $table->timestamps();
            $table->index(['client_id', 'id']);
        });
        // A link that opens one without signing in; what is stored here opens nothing.
        Schema::create('sheet_links', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('sheet_id')->constrained()->cascadeOnDelete();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('finder', 64)->unique();
            $table->dateTime('expires_at');
            $table->unsignedInteger('opened')->default(0);
            $table->dateTime('opened_at')->nullable();
            $table->string('opened_from', 45)->nullable();
            $table->dateTime('withdrawn_at')->nullable();
            $table->timestamps();
        });
    }

    private function errands(): void
    {
        Schema::create('errands', static function (Blueprint $table): void {
            $table->id();
            $table->string('kind', 20);
            $table->string('state', 10);
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->foreignId('client_id')->nullable()->constrained()->cascadeOnDelete();
            $table->foreignId('account_id')->nullable()->constrained()->cascadeOnDelete();
            $table->foreignId('site_id')->nullable()->constrained()->cascadeOnDelete();
            $table->foreignId('ftp_user_id')->nullable()->constrained()->cascadeOnDelete();
            $table->string('back', 1000);
            $table->mediumText('given');
            $table->mediumText('result')->nullable();
            $table->text('words')->nullable();
            $table->dateTime('started_at')->nullable();
            $table->timestamps();
            $table->index('state'); // Every worker asks every two seconds for those that nobody does any more.
            $table->index('created_at');
        });
    }

    private function evidence(): void
    {
        Schema::create('proofs', static function (Blueprint $table): void {
            $table->id();
            $table->string('subject_type');
            $table->unsignedBigInteger('subject_id');
            $table->string('kind', 40);
            $table->string('run', 12)->nullable();
            $table->string('name', 20)->default('');
            $table->boolean('ok');
            $table->string('sentence', 1000);
            $table->string('answer', 300)->nullable();
            $table->string('next', 500)->nullable();
            $table->dateTime('made_at', 3);
            // A site has very many that hold and few that failed.
            $table->index([
                'subject_type',
                'subject_id',
                'ok',
                'made_at',
            ]);
        });
        // Where the chain of the record ends: one row, held while a line is written.
        Schema::create('record_ends', static function (Blueprint $table): void {
            $table->unsignedTinyInteger('id')->primary();
            $table->unsignedBigInteger('number');
            $table->string('seal', 64);
        });
        Schema::create('record_entries', static function (Blueprint $table): void {
            $table->id();
            $table->unsignedBigInteger('number')->unique();
            $table->string('seal', 64);
            $table->dateTime('at', 3)->index();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('role', 20)->nullable();
            $table->string('address', 45)->nullable();
            $table->foreignId('client_id')->nullable()->constrained();
            $table->foreignId('account_id')->nullable()->constrained();
            $table->foreignId('site_id')->nullable()->constrained();
            $table->string('action', 40);
            $table->string('sentence', 1000);
            $table->json('facts')->nullable();
        });
        // The record only grows; the database holds to that whoever asks.
        foreach (['update', 'delete'] as $event) {
            DB::unprepared(
                "CREATE TRIGGER record_keeps_$event BEFORE $event ON record_entries FOR EACH ROW "
                ."SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The record is append-only.'",
            );
        }
    }

    /** What is removed stays for its time and for its history; its name may be used again meanwhile. */
    private function canBeRemoved(Blueprint $table): void
    {
        $table->dateTime('removed_at')->nullable()->index();
        $table->boolean('in_use')->nullable()->virtualAs('IF(removed_at IS NULL, 1, NULL)');
    }
};
