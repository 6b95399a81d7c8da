<?php

declare(strict_types=1);

use App\Http\Controllers\AccountController;
use App\Http\Controllers\AccountFormController;
use App\Http\Controllers\AccountImportController;
use App\Http\Controllers\AskController;
use App\Http\Controllers\BackupController;
use App\Http\Controllers\BackupRuleController;
use App\Http\Controllers\ChooserController;
use App\Http\Controllers\ClientController;
use App\Http\Controllers\DeploymentController;
use App\Http\Controllers\DestinationController;
use App\Http\Controllers\DownloadController;
use App\Http\Controllers\ErrandController;
use App\Http\Controllers\FileController;
use App\Http\Controllers\FileEditController;
use App\Http\Controllers\FileLookController;
use App\Http\Controllers\FileRightsController;
use App\Http\Controllers\FileSearchController;
use App\Http\Controllers\FinderController;
use App\Http\Controllers\FtpUserController;
use App\Http\Controllers\FtpUserListController;
use App\Http\Controllers\HandOverController;
use App\Http\Controllers\LibraryController;
use App\Http\Controllers\MeController;
use App\Http\Controllers\MendController;
use App\Http\Controllers\MoveController;
use App\Http\Controllers\OverTimeController;
use App\Http\Controllers\PackageController;
use App\Http\Controllers\PackageTypeController;
use App\Http\Controllers\PeopleController;
use App\Http\Controllers\PlanController;
use App\Http\Controllers\ReachController;
use App\Http\Controllers\RecordController;
use App\Http\Controllers\RemovalController;
use App\Http\Controllers\RunController;
use App\Http\Controllers\SavedViewController;
use App\Http\Controllers\SetAsideController;
use App\Http\Controllers\SheetController;
use App\Http\Controllers\SheetLinkController;
use App\Http\Controllers\SignInController;
use App\Http\Controllers\SiteController;
use App\Http\Controllers\StoreController;
use App\Http\Controllers\TodayController;
use App\Http\Controllers\TokenController;
use App\Http\Controllers\UploadController;
use App\Http\Controllers\UploadInspectionController;
use App\Http\Controllers\WelcomeController;
use Cellarium\Core\People\Permission;
use Illuminate\Support\Facades\Route;

/*
 * Every route stands under the permission it needs; which role has which is said in Cellarium\Core\People\Role. Routes
 * in front of the permissions need none, and a test knows each of them.
 */
// Numbers, so that "/accounts/new" is no account.
foreach (
    ['account', 'site', 'user', 'client', 'package', 'other', 'upload', 'deployment', 'backup', 'view',
        'errand', 'change', 'byhand', 'search', 'check', 'draft', 'link', 'destination', 'asked', 'person',
        'token', 'aside', 'sheet', 'given', 'id'] as $number
) {
    Route::pattern($number, '[0-9]+');
}
Route::pattern('type', '[a-z][a-z0-9-]{1,39}');

Route::middleware('guest')->group(function (): void {
    Route::get('/sign-in', [SignInController::class, 'show']);
    Route::post('/sign-in', [SignInController::class, 'signIn']);
    Route::get('/sign-in/code', [SignInController::class, 'askCode']);
    Route::post('/sign-in/code', [SignInController::class, 'takeCode']);
});

// The web server asks before it reads a request's body.
Route::get('/signed-in', [SignInController::class, 'holds']);
// Whoever has the link is let in, signed in here or not.
Route::get('/hand-over', [HandOverController::class, 'show']);
Route::post('/hand-over', [HandOverController::class, 'open'])->middleware('throttle:20,1');
Route::get('/client-sheet', [SheetLinkController::class, 'show']);
Route::post('/client-sheet', [SheetLinkController::class, 'open'])->middleware('throttle:20,1');
Route::get('/client-sheet/{given}', [SheetLinkController::class, 'sheet']);
Route::get('/client-sheet/{given}.json', [SheetLinkController::class, 'json']);
Route::get('/welcome', [WelcomeController::class, 'show']);
Route::post('/welcome', [WelcomeController::class, 'choose'])->middleware('throttle:20,1');

$signedIn = static fn (Permission $permission) => Route::middleware(['auth', 'signed-in', "can:$permission->value"]);

$signedIn(Permission::OwnSettings)->group(function (): void {
    Route::post('/sign-out', [SignInController::class, 'signOut']);
    Route::get('/sign-in/again', [SignInController::class, 'showAgain']);
    Route::post('/sign-in/again', [SignInController::class, 'again']);
    Route::get('/me', [MeController::class, 'show']);
    Route::post('/me', [MeController::class, 'update']);
    Route::post('/me/password', [MeController::class, 'password'])->middleware('fresh');
    Route::get('/me/second-factor', [MeController::class, 'newSecondFactor'])->middleware('fresh');
    Route::post('/me/second-factor', [MeController::class, 'beginSecondFactor'])->middleware('fresh');
    Route::post('/me/second-factor/end', [MeController::class, 'endSecondFactor'])->middleware('fresh');
    Route::post('/me/recovery-codes', [MeController::class, 'renewRecoveryCodes'])->middleware('fresh');
    Route::post('/me/sessions/end', [MeController::class, 'endSessions']);
});

$signedIn(Permission::LookAtSites)->group(function (): void {
    Route::get('/', [TodayController::class, 'show']);
    Route::get('/find', FinderController::class);
    Route::get('/sites/{site}', [SiteController::class, 'show'])->withTrashed();
    Route::get('/sites/{site}/files/{path?}', [FileController::class, 'site'])->where('path', '.*');
    Route::get('/sites/{site}/look-file/{path}', [FileLookController::class, 'ofSite'])->where('path', '.*');
    Route::get('/sites/{site}/set-aside', [SetAsideController::class, 'index']);
    Route::get('/backups', [BackupController::class, 'index']);
    Route::get('/record', RecordController::class);
    Route::get('/sheets/{sheet}/print', [SheetController::class, 'printed']);
    Route::get('/sheets/{sheet}.json', [SheetController::class, 'json']);
});

$signedIn(Permission::FetchBackups)->group(function (): void {
    Route::get('/backups/{backup}/zip', [BackupController::class, 'download']);
    Route::post('/backups/{backup}/zip', [BackupController::class, 'download']);
});

$signedIn(Permission::Ask)->group(function (): void {
    Route::post('/requests', [AskController::class, 'ask']);
});

$signedIn(Permission::LookAtAgency)->group(function (): void {
    Route::get('/backups/sites', [BackupController::class, 'sites']);
    Route::get('/sites/{site}/over-time', [OverTimeController::class, 'show']);
    Route::get('/sites/{site}/over-time.csv', [OverTimeController::class, 'csv']);
    Route::get('/sites/{site}/moments', [OverTimeController::class, 'moments']);
    Route::get('/sites/{site}/moments/text', [OverTimeController::class, 'text']);
    Route::get('/backups/{backup}', [BackupController::class, 'show']);
    Route::get('/sheets', [SheetController::class, 'index']);
    Route::get('/sheets/{sheet}', [SheetController::class, 'show']);
    Route::get('/shelves', [TodayController::class, 'shelves']);
    Route::get('/choose/sites', [ChooserController::class, 'sites']);
    Route::get('/choose/packages', [ChooserController::class, 'packages']);
    Route::get('/errands/{errand}', [ErrandController::class, 'show']);
    Route::get('/downloads/{errand}', [DownloadController::class, 'show']);
    Route::get('/accounts', [AccountController::class, 'index']);
    Route::get('/accounts/{account}', [AccountController::class, 'show'])->withTrashed();
    Route::get('/accounts/{account}/ladder', [AccountController::class, 'ladder']);
    Route::get('/accounts/{account}/map', [ReachController::class, 'map']);
    Route::get('/accounts/{account}/reach.csv', [ReachController::class, 'csv']);
    Route::get('/accounts/{account}/files/{path?}', [FileController::class, 'account'])->where('path', '.*');
    Route::get('/accounts/{account}/look-file/{path}', [FileLookController::class, 'ofAccount'])->where('path', '.*');
    Route::get('/sites/{site}/compare-file/{path}', [FileLookController::class, 'compareInSite'])
        ->where('path', '.*');
    Route::get('/accounts/{account}/compare-file/{path}', [FileLookController::class, 'compareInAccount'])
        ->where('path', '.*');
    Route::get('/file-changes/{byhand}', [FileController::class, 'changed']);
    Route::get('/file-changes/{byhand}/page', [FileController::class, 'page']);
    Route::get('/rights-checks/{check}', [FileRightsController::class, 'show']);
    Route::get('/file-searches/{search}', [FileSearchController::class, 'show']);
    Route::get('/reach', [ReachController::class, 'matrix']);
    Route::get('/reach.csv', [ReachController::class, 'matrixCsv']);
    Route::get('/ftp-users', [FtpUserListController::class, 'index']);
    Route::get('/ftp-users/{user}', [FtpUserController::class, 'show']);
    Route::get('/ftp-users/{user}/state', [FtpUserController::class, 'state']);
    Route::get('/bulk/{change}', [FtpUserListController::class, 'show']);
    Route::get('/bulk/{change}/live', [FtpUserListController::class, 'live']);
    Route::post('/views', [SavedViewController::class, 'keep']);
    Route::post('/views/{view}/remove', [SavedViewController::class, 'remove']);
    Route::get('/package-types', [PackageTypeController::class, 'index']);
    Route::get('/package-types/{type}.yaml', [PackageTypeController::class, 'download']);
    Route::get('/packages', [LibraryController::class, 'index']);
    Route::get('/packages/{package}', [PackageController::class, 'show']);
    Route::get('/packages/{package}/compare/{other}', [LibraryController::class, 'compare']);
    Route::get('/packages/{package}/references', [PackageController::class, 'references']);
    Route::get('/packages/{package}/landing', [PackageController::class, 'landing']);
    Route::get('/deployments', [DeploymentController::class, 'index']);
    Route::get('/deployments/{deployment}', [DeploymentController::class, 'show']);
    Route::get('/deployments/{deployment}/live', [DeploymentController::class, 'live']);
    Route::get('/deployments/{deployment}/plan', [PlanController::class, 'tree']);
    Route::get('/requests', [AskController::class, 'index']);
    Route::get('/requests/{asked}', [AskController::class, 'show']);
});

$signedIn(Permission::Work)->group(function (): void {
    Route::get('/me/tokens', [TokenController::class, 'index']);
    Route::post('/me/tokens', [TokenController::class, 'make'])->middleware('fresh');
    Route::post('/me/tokens/{token}/revoke', [TokenController::class, 'revoke']);
    Route::post('/errands/{errand}/cancel', [ErrandController::class, 'cancel']);
    Route::post('/accounts/{account}/connect', [AccountController::class, 'connect']);
    Route::post('/accounts/{account}/cancel', [AccountController::class, 'cancel']);
    Route::post('/sites/{site}/prove-root', [SiteController::class, 'proveRoot']);
    Route::post('/sites/{site}/php', [SiteController::class, 'askPhp']);
    Route::post('/sites/{site}/open-addresses', [SiteController::class, 'askOpen']);
    Route::get('/accounts/{account}/foresight', [ReachController::class, 'foresight']);
    Route::get('/accounts/{account}/tree', [ReachController::class, 'tree']);
    Route::get('/accounts/{account}/ftp-users/new', [FtpUserController::class, 'new']);
    Route::post('/accounts/{account}/ftp-users', [FtpUserController::class, 'create']);
    Route::get('/accounts/{account}/login-check', [FtpUserController::class, 'check']);
    Route::post('/accounts/{account}/password-check', [FtpUserController::class, 'strength']);
    Route::post('/ftp-users/{user}/prove', [FtpUserController::class, 'prove']);
    Route::post('/ftp-users/{user}/renew', [FtpUserController::class, 'renew']);
    Route::post('/ftp-users/{user}/change', [FtpUserController::class, 'change']);
    Route::post('/ftp-users/{user}/closing', [FtpUserController::class, 'closing']);
    Route::post('/ftp-users/{user}/reopen', [FtpUserController::class, 'reopen']);
    Route::post('/ftp-users/{user}/close', [FtpUserController::class, 'close']);
    Route::post('/ftp-users/{user}/remove', [FtpUserController::class, 'remove']);
    Route::post('/ftp-users/{user}/give-up', [FtpUserController::class, 'giveUp']);
    Route::post('/hand-overs/{link}/withdraw', [HandOverController::class, 'withdraw']);
    Route::post('/bulk', [FtpUserListController::class, 'draft']);
    Route::post('/bulk/{change}/start', [FtpUserListController::class, 'start']);
    Route::post('/packages', [PackageController::class, 'take']);
    Route::options('/uploads', [UploadController::class, 'offers']);
    Route::post('/uploads', [UploadController::class, 'begin']);
    Route::match('HEAD', '/uploads/{upload}', [UploadController::class, 'offset']);
    Route::patch('/uploads/{upload}', [UploadController::class, 'append']);
    Route::delete('/uploads/{upload}', [UploadController::class, 'remove']);
    Route::get('/uploads/{upload}/finish', [UploadController::class, 'finish']);
    Route::get('/packages/let-go', [LibraryController::class, 'offer']);
    Route::post('/packages/let-go', [LibraryController::class, 'letGo']);
    Route::post('/packages/{package}/type', [PackageController::class, 'say']);
    Route::post('/packages/{package}/name', [PackageController::class, 'name']);
    Route::get('/packages/{package}/mend', [MendController::class, 'show']);
    Route::post('/packages/{package}/mend', [MendController::class, 'make']);
    Route::get('/deployments/new', [DeploymentController::class, 'choose']);
    Route::post('/deployments', [DeploymentController::class, 'plan']);
    Route::get('/deployments/{deployment}/file', [PlanController::class, 'file']);
    Route::get('/deployments/{deployment}/side', [PlanController::class, 'side']);
    Route::post('/deployments/{deployment}/answers', [PlanController::class, 'answer']);
    Route::post('/deployments/{deployment}/folder', [UploadInspectionController::class, 'folder']);
    Route::post('/deployments/{deployment}/correct', [UploadInspectionController::class, 'correct']);
    Route::post('/deployments/{deployment}/settings', [PlanController::class, 'settings']);
    Route::post('/deployments/discard', [DeploymentController::class, 'discard']);
    Route::post('/deployments/{deployment}/plan-again', [DeploymentController::class, 'planAgain']);
    Route::post('/deployments/{deployment}/start', [DeploymentController::class, 'start']);
    Route::post('/deployments/{deployment}/prove', [DeploymentController::class, 'prove']);
    Route::post('/deployments/{deployment}/again', [DeploymentController::class, 'again']);
    Route::post('/deployments/{deployment}/pause', [RunController::class, 'pause']);
    Route::post('/deployments/{deployment}/go-on', [RunController::class, 'goOn']);
    Route::post('/deployments/{deployment}/retry', [RunController::class, 'retry']);
    Route::post('/deployments/{deployment}/undo', [DeploymentController::class, 'undo']);
    Route::post('/deployments/{deployment}/restore', [DeploymentController::class, 'restore']);
    Route::post('/deployments/{deployment}/cancel', [DeploymentController::class, 'cancel']);
    Route::post('/deployments/{deployment}/accept', [DeploymentController::class, 'accept']);
    Route::post('/sites/{site}/file-changes', [FileController::class, 'changeOfSite']);
    Route::post('/accounts/{account}/file-changes', [FileController::class, 'changeOfAccount']);
    Route::post('/sites/{site}/file-uploads', [FileController::class, 'bring']);
    Route::post('/sites/{site}/start-page', [FileController::class, 'startPage']);
    Route::post('/sites/{site}/file-downloads', [FileController::class, 'downloadOfSite']);
    Route::post('/accounts/{account}/file-downloads', [FileController::class, 'downloadOfAccount']);
    Route::post('/sites/{site}/rights-checks', [FileRightsController::class, 'check']);
    Route::post('/rights-checks/{check}', [FileRightsController::class, 'mend']);
    Route::post('/sites/{site}/file-searches', [FileSearchController::class, 'inSite']);
    Route::post('/accounts/{account}/file-searches', [FileSearchController::class, 'inAccount']);
    Route::post('/sites/{site}/file-visitors', [FileController::class, 'askOfSite']);
    Route::post('/accounts/{account}/file-visitors', [FileController::class, 'askOfAccount']);
    Route::get('/sites/{site}/edit-file/{path}', [FileEditController::class, 'ofSite'])->where('path', '.*');
    Route::get('/accounts/{account}/edit-file/{path}', [FileEditController::class, 'ofAccount'])->where('path', '.*');
    Route::post('/file-drafts/{draft}', [FileEditController::class, 'act']);
    Route::post('/file-drafts/{draft}/keep', [FileEditController::class, 'keep']);
    Route::post('/file-changes/{byhand}/start', [FileController::class, 'start']);
    Route::post('/file-changes/{byhand}/undo', [FileController::class, 'undo']);
    Route::post('/set-aside/{aside}/restore', [SetAsideController::class, 'restore']);
    Route::post('/backups/overdue', [BackupController::class, 'overdue']);
    Route::post('/sites/{site}/backups', [BackupController::class, 'take']);
    Route::post('/backups/{backup}/restore', [BackupController::class, 'restore']);
    Route::post('/backups/{backup}/restore-database', [BackupController::class, 'restoreDatabase']);
    Route::post('/backups/{backup}/cancel', [BackupController::class, 'cancel']);
    Route::post('/backups/{backup}/accept', [BackupController::class, 'accept']);
    Route::post('/backups/{backup}/pin', [BackupController::class, 'pin']);
    Route::post('/backups/{backup}/unpin', [BackupController::class, 'unpin']);
    Route::post('/backups/{backup}/rehearse', [BackupController::class, 'rehearse']);
    Route::post('/sites/{site}/rehearsals', [BackupController::class, 'rehearseSite']);
    Route::post('/sheets', [SheetController::class, 'make']);
    Route::post('/deployments/{deployment}/sheet', [SheetController::class, 'makeOfDeployment']);
    Route::post('/sheets/{sheet}/links', [SheetController::class, 'link']);
    Route::post('/sheet-links/{given}/withdraw', [SheetController::class, 'withdraw']);
    Route::post('/requests/{asked}/answer', [AskController::class, 'answer']);
});

$signedIn(Permission::OverruleInspection)->group(function (): void {
    Route::post('/deployments/{deployment}/overrule', [UploadInspectionController::class, 'overrule']);
});

$signedIn(Permission::ChangeAccounts)->group(function (): void {
    Route::post('/store/sweep', [StoreController::class, 'sweep']);
    Route::post('/store/aside/empty', [StoreController::class, 'emptyAside']);
    Route::get('/sites/{site}/backup-rule', [BackupRuleController::class, 'edit']);
    Route::post('/sites/{site}/backup-rule', [BackupRuleController::class, 'save']);
    Route::get('/package-types/new', [PackageTypeController::class, 'edit']);
    Route::get('/package-types/{type}/edit', [PackageTypeController::class, 'edit']);
    Route::post('/package-types', [PackageTypeController::class, 'save']);
    Route::post('/package-types/{type}/remove', [PackageTypeController::class, 'remove']);
    Route::get('/accounts/new', [AccountFormController::class, 'new']);
    Route::get('/accounts/import', [AccountImportController::class, 'bring']);
    Route::post('/accounts/import', [AccountImportController::class, 'take']);
    Route::get('/accounts/import/{name}', [AccountImportController::class, 'look']);
    Route::post('/accounts/import/{name}', [AccountImportController::class, 'takeOver']);
    Route::get('/accounts/export', [AccountImportController::class, 'offer']);
    Route::post('/accounts/export', [AccountImportController::class, 'export']);
    Route::post('/accounts/letter', [AccountFormController::class, 'letter']);
    Route::post('/accounts', [AccountFormController::class, 'create']);
    Route::get('/accounts/{account}/edit', [AccountFormController::class, 'edit']);
    Route::post('/accounts/{account}', [AccountFormController::class, 'update']);
    Route::get('/accounts/{account}/anew', [MoveController::class, 'show']);
    Route::post('/accounts/{account}/anew', [MoveController::class, 'carryOut']);
    Route::post('/accounts/{account}/anew/start', [MoveController::class, 'start']);
    Route::post('/accounts/{account}/renew-password', [AccountController::class, 'renewPassword']);
    Route::post('/accounts/{account}/remedy', [AccountController::class, 'remedy']);
    Route::get('/accounts/{account}/sites/new', [SiteController::class, 'new']);
    Route::post('/accounts/{account}/sites', [SiteController::class, 'create']);
    Route::get('/sites/{site}/edit', [SiteController::class, 'edit']);
    Route::post('/sites/{site}', [SiteController::class, 'update']);
    Route::post('/sites/{site}/find-root', [SiteController::class, 'find']);
    Route::post('/sites/{site}/destinations', [DestinationController::class, 'keep']);
    Route::post('/destinations/{destination}/remove', [DestinationController::class, 'remove']);
    Route::get('/removals', [RemovalController::class, 'index']);
    Route::get('/removals/{kind}/{id}', [RemovalController::class, 'show']);
    Route::post('/removals/{kind}/{id}', [RemovalController::class, 'remove'])
        ->middleware('fresh');
    Route::post('/removals/{kind}/{id}/undo', [RemovalController::class, 'undo']);
    Route::get('/clients/{client}', [ClientController::class, 'edit'])->withTrashed();
    Route::post('/clients/{client}', [ClientController::class, 'update']);
});

$signedIn(Permission::SeeSecrets)->group(function (): void {
    Route::get('/ftp-users/{user}/sheet', [FtpUserController::class, 'sheet'])->middleware('fresh');
    Route::post('/accounts/export-secrets', [AccountImportController::class, 'exportSecrets'])
        ->middleware('fresh');
    Route::post('/ftp-users/{user}/hand-over', [FtpUserController::class, 'handOver'])
        ->middleware('fresh');
});

$signedIn(Permission::ManagePeople)->group(function (): void {
    Route::get('/people', [PeopleController::class, 'index']);
    Route::middleware('fresh')->group(function (): void {
        Route::get('/people/new', [PeopleController::class, 'new']);
        Route::post('/people', [PeopleController::class, 'invite']);
        Route::get('/people/{person}', [PeopleController::class, 'show']);
        Route::post('/people/{person}', [PeopleController::class, 'update']);
        Route::post('/people/{person}/close', [PeopleController::class, 'close']);
        Route::post('/people/{person}/open', [PeopleController::class, 'open']);
        Route::post('/people/{person}/renew-password', [PeopleController::class, 'renewPassword']);
        Route::post('/people/{person}/drop-second-factor', [PeopleController::class, 'dropSecondFactor']);
    });
});
