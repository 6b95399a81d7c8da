<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What is live on a site in one line, and which paths a small run has touched, that the line counts. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('sites', static function (Blueprint $table): void {
            $table->string('live_says', 250)->nullable();
        });
        Schema::table('deployments', static function (Blueprint $table): void {
            $table->json('touched')->nullable();
        });
    }
};
