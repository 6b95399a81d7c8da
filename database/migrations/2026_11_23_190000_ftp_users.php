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
            $table->json('login_rules')->nullable();
            $table->string('ftp_protocol', 20)->nullable();
            $table->unsignedSmallInteger('ftp_port')->nullable();
        });
        // Directories are kept with what lies in them now; they are looked at again.
        DB::table('accounts')->update(['tree' => null]);
        Schema::table('sites', function (Blueprint $table): void {
            $table->foreignId('client_id')->nullable()->constrained();
        });
        Schema::table('proofs', function (Blueprint $table): void {
            $table->string('run', 12)->nullable();
            $table->string('name', 20)->default('');
            $table->string('answer', 300)->nullable();
        });
        $this->users();
        Schema::create('destinations', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained()->cascadeOnDelete();
            $table->string('name', 60);
            $table->string('directory', 1000);
            $table->timestamps();
            $table->unique(['site_id', 'name']);
        });
        Schema::table('deployments', function (Blueprint $table): void {
            $table->string('directory', 1000)->nullable();
        });
        Schema::create('hand_overs', function (Blueprint $table): void {
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
        Schema::create('bulk_changes', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->string('kind', 20);
            $table->dateTime('closes_at')->nullable();
            $table->string('state', 20);
            $table->json('items');
            $table->timestamps();
        });
    }

    private function users(): void
    {
        Schema::table('ftp_users', function (Blueprint $table): void {
            $table->foreignId('person_id')->nullable()->constrained('people');
            $table->boolean('read_only')->default(false);
            $table->string('ends', 10)->default('time');
            $table->string('ends_reason', 200)->default('');
            $table->json('pending')->nullable();
            $table->text('next_secret')->nullable();
            $table->boolean('forgets')->default(false);
            $table->dateTime('used_at')->nullable();
            $table->string('seen_use', 40)->nullable();
            $table->dateTime('tried_at')->nullable();
            $table->dateTime('proving_at')->nullable();
            $table->dateTime('found_at')->nullable();
            $table->json('probe')->nullable();
            $table->dateTime('proof_failed_at')->nullable();
            $table->index(['state', 'closes_at']);
            // A login that was removed may be made again; of those that exist there is one of each.
            $table->string('live_login')->nullable()->virtualAs("IF(state = 'removed', NULL, login)");
            $table->unique(['account_id', 'live_login']);
        });
        Schema::table('ftp_users', function (Blueprint $table): void {
            $table->dropUnique(['account_id', 'login']);
        });
        // Those from before closed with their job or at their time, whichever came first.
        DB::table('ftp_users')->whereNull('closes_at')->update(['ends' => 'job']);
    }
};
