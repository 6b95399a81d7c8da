<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What visitors meet beside the bytes of a deployment, and addresses that answer them and should not. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('deployments', static function (Blueprint $table): void {
            $table->json('found_live')->nullable();
        });
        Schema::create('open_addresses', static function (Blueprint $table): void {
            $table->id();
            $table->foreignId('site_id')->constrained()->cascadeOnDelete();
            $table->foreignId('deployment_id')->nullable()->constrained()->nullOnDelete();
            $table->string('kind', 20);
            $table->string('url', 2000);
            $table->string('says', 200)->nullable();
            $table->char('sha256', 64)->nullable();
            $table->dateTime('asked_at', 3)->nullable();
            $table->timestamps();
            $table->index('asked_at');
        });
    }
};
