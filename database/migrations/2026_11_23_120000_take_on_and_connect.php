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
            $table->string('label')->default('');
            $table->string('start_directory', 1000)->nullable();
            $table->boolean('active_mode')->default(false);
            $table->string('known_address', 45)->nullable();
            $table->json('pin')->nullable();
            $table->text('private_key')->nullable();
            $table->string('key_kind')->nullable();
            $table->string('key_fingerprint')->nullable();
            $table->json('tags')->default('[]');
            $table->text('notes')->nullable();
            $table->unsignedInteger('latency_ms')->nullable();
            $table->json('features')->nullable();
            $table->string('trouble', 40)->nullable();
            $table->text('next_secret')->nullable();
            $table->dateTime('climbing_at')->nullable();
            $table->dateTime('used_at')->nullable()->index();
            $table->index('host');
            $table->index('trouble');
        });
        Schema::table('sites', function (Blueprint $table): void {
            $table->json('aliases')->default('[]');
            $table->json('mounts')->default('[]');
            $table->json('candidates')->nullable();
            $table->string('token', 1100)->nullable();
            $table->boolean('leads_elsewhere')->default(false);
        });
        Schema::create('saved_views', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('person_id')->constrained('people')->cascadeOnDelete();
            $table->string('name', 60);
            $table->string('query', 500);
            $table->timestamps();
            $table->unique(['person_id', 'name']);
        });
        // Accounts that connected before have the old ladder's form; they are climbed again.
        DB::table('accounts')->update(['ladder' => null]);
    }
};
