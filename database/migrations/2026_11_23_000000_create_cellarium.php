<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration
{
    public function up(): void
    {
        $this->framework();
        $this->holdings();
        $this->work();
        $this->evidence();
    }

    private function framework(): void
    {
        Schema::create('sessions', function (Blueprint $table): void {
            $table->string('id')->primary();
            $table->foreignId('user_id')->nullable()->index();
            $table->string('ip_address', 45)->nullable();
            $table->text('user_agent')->nullable();
            $table->longText('payload');
            $table->integer('last_activity')->index();
        });
        Schema::create('cache', function (Blueprint $table): void {
            $table->string('key')->primary();
            $table->mediumText('value');
            $table->integer('expiration')->index();
        });
        Schema::create('cache_locks', function (Blueprint $table): void {
            $table->string('key')->primary();
            $table->string('owner');
            $table->integer('expiration')->index();
        });
        Schema::create('jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('queue')->index();
            $table->longText('payload');
            $table->unsignedTinyInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });
        Schema::create('failed_jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('uuid')->unique();
            $table->text('connection');
            $table->text('queue');
            $table->longText('payload');
            $table->longText('exception');
            $table->timestamp('failed_at')->useCurrent();
        });
        Schema::create('people', function (Blueprint $table): void {
            $table->id();
            $table->string('name');
            $table->string('email')->unique();
            $table->string('password');
            $table->string('role', 20);
            $table->rememberToken();
            $table->timestamps();
        });
    }

    private function holdings(): void
    {
        Schema::create('clients', function (Blueprint $table): void {
            $table->id();
            $table->string('name')->unique();
            $table->string('colour', 7);
            $table->string('group')->default('');
            $table->text('notes')->nullable();
            $table->timestamps();
        });
        Schema::create('accounts', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('client_id')->constrained();
            $table->string('company')->default('');
            $table->string('host');
            $table->unsignedSmallInteger('port');
            $table->string('protocol', 20);
            $table->string('login');
            $table->text('secret');
            $table->string('address', 45)->nullable();
            $table->string('control_url')->nullable();
            $table->text('control_token')->nullable();
            $table->unsignedBigInteger('space_used')->nullable();
            $table->unsignedBigInteger('space_limit')->nullable();
            $table->json('tree')->nullable();
            $table->dateTime('looked_at')->nullable();
            $table->json('ladder')->nullable();
            $table->dateTime('reached_at')->nullable();
            $table->dateTime('tried_at')->nullable();
            $table->timestamps();
            $table->unique(['host', 'port', 'login']);
        });
        Schema::create('sites', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained();
            $table->string('domain')->unique();
            $table->string('base_url');
            $table->string('document_root', 1000);
            $table->json('start_pages');
            $table->json('kept');
            $table->unsignedBigInteger('bytes')->nullable();
            $table->boolean('placeholder')->nullable();
            $table->string('placeholder_file')->nullable();
            $table->dateTime('root_proven_at')->nullable();
            $table->dateTime('live_proven_at')->nullable();
            $table->timestamps();
        });
        Schema::create('ftp_users', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('account_id')->constrained();
            $table->string('login');
            $table->text('secret')->nullable();
            $table->string('directory', 1000);
            $table->unsignedBigInteger('space_limit')->nullable();
            $table->string('purpose')->default('');
            $table->string('state', 20);
            $table->dateTime('closes_at')->nullable();
            $table->dateTime('reach_proven_at')->nullable();
            $table->dateTime('closed_at')->nullable();
            $table->dateTime('refusal_proven_at')->nullable();
            $table->dateTime('handed_over_at')->nullable();
            $table->text('trouble')->nullable();
            $table->timestamps();
            $table->unique(['account_id', 'login']);
        });
    }

    private function work(): void
    {
        Schema::create('packages', function (Blueprint $table): void {
            $table->id();
            $table->string('name');
            $table->string('version')->nullable();
            $table->string('file_name');
            $table->string('sha256', 64)->unique();
            $table->unsignedBigInteger('packed_bytes');
            $table->unsignedBigInteger('bytes');
            $table->unsignedInteger('files');
            $table->string('wrapper')->nullable();
            $table->string('start_page')->nullable();
            $table->json('findings');
            $table->boolean('stops');
            $table->longText('manifest');
            $table->timestamps();
        });
        Schema::create('backups', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('reason', 40);
            $table->string('state', 20);
            $table->string('name')->nullable();
            $table->unsignedInteger('files')->default(0);
            $table->unsignedBigInteger('bytes')->default(0);
            $table->unsignedInteger('fetched_files')->default(0);
            $table->unsignedBigInteger('fetched_bytes')->default(0);
            $table->dateTime('verified_at')->nullable();
            $table->text('trouble')->nullable();
            $table->timestamps();
            $table->index(['site_id', 'verified_at']);
        });
        Schema::create('deployments', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained();
            $table->string('kind', 20);
            $table->foreignId('package_id')->nullable()->constrained();
            $table->foreignId('from_backup_id')->nullable()->constrained('backups');
            $table->foreignId('undoes_id')->nullable()->constrained('deployments');
            $table->foreignId('ftp_user_id')->nullable()->constrained();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->foreignId('backup_id')->nullable()->constrained();
            $table->foreignId('waits_for_id')->nullable()->constrained('deployments');
            $table->string('state', 20)->index();
            $table->string('stage', 20)->nullable();
            $table->string('seen', 64)->nullable();
            $table->json('policy');
            $table->json('counts');
            $table->json('progress')->nullable();
            $table->json('proofs')->nullable();
            $table->text('trouble')->nullable();
            $table->boolean('held')->default(false);
            $table->dateTime('planned_at')->nullable();
            $table->dateTime('started_at', 3)->nullable();
            $table->dateTime('ended_at', 3)->nullable();
            $table->timestamps();
            $table->index(['site_id', 'state']);
        });
    }

    private function evidence(): void
    {
        Schema::create('proofs', function (Blueprint $table): void {
            $table->id();
            $table->morphs('subject');
            $table->string('kind', 40);
            $table->boolean('ok');
            $table->string('sentence', 1000);
            $table->string('next', 500)->nullable();
            $table->dateTime('made_at', 3);
        });
        Schema::create('record_entries', function (Blueprint $table): void {
            $table->id();
            $table->dateTime('at', 3)->index();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->foreignId('client_id')->nullable()->constrained();
            $table->foreignId('account_id')->nullable()->constrained();
            $table->foreignId('site_id')->nullable()->constrained();
            $table->string('action', 40);
            $table->string('sentence', 1000);
            $table->json('facts')->nullable();
        });
        // The record only grows; the database holds to that whoever asks.
        foreach (['UPDATE', 'DELETE'] as $event) {
            DB::unprepared(
                'CREATE TRIGGER record_keeps_'
                    .strtolower($event)
                    ." BEFORE $event ON record_entries FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'The "
                    ."record is append-only.'",
            );
        }
    }
};
