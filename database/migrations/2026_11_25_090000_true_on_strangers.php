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
        Schema::table('accounts', function (Blueprint $table): void {
            $table->string('tls_use', 20)->nullable();
            $table->string('secret_for', 64)->nullable();
        });
        Schema::table('deployments', function (Blueprint $table): void {
            $table->unsignedInteger('addresses')->default(0);
            $table->unsignedInteger('read_back')->default(0);
            $table->json('unproven')->nullable();
            $table->string('question', 20)->nullable();
            $table->boolean('collapse_accepted')->default(false);
            $table->dateTime('cancelled_at')->nullable();
        });
        Schema::table('backups', function (Blueprint $table): void {
            $table->unsignedInteger('taken_over_files')->default(0);
            $table->dateTime('taken_over_since')->nullable();
            $table->dateTime('started_at')->nullable();
            $table->dateTime('cancelled_at')->nullable();
            $table->boolean('collapse_accepted')->default(false);
            $table->json('progress')->nullable();
            // Workers look for what was orphaned every few seconds.
            $table->index(['state', 'started_at']);
        });
        Schema::table('sites', function (Blueprint $table): void {
            $table->dateTime('last_backup_at')->nullable();
            $table->foreignId('last_deployment_id')->nullable()->constrained('deployments')->nullOnDelete();
            $table->index('last_backup_at');
        });
        DB::statement(
            'UPDATE sites SET last_backup_at = (SELECT MAX(verified_at) FROM backups WHERE backups.site_id = sites.id '
                ."AND state = 'verified')",
        );
        DB::statement(
            'UPDATE sites SET last_deployment_id = (SELECT id FROM deployments WHERE deployments.site_id = sites.id '
                ."AND state = 'proven' ORDER BY ended_at DESC, id DESC LIMIT 1)",
        );
        Schema::create('errands', function (Blueprint $table): void {
            $table->id();
            $table->string('kind', 20);
            $table->string('state', 10);
            $table->foreignId('person_id')->nullable()->constrained('people');
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
        Schema::create('set_asides', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained();
            $table->foreignId('deployment_id')->constrained();
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
    }
};
