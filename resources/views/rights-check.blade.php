<x-page title="Permissions of {{ $site->domain }}" place="Accounts" wide>
    <x-slot:where>@include('parts.files-where')</x-slot:where>
    @include('parts.rights-check')
</x-page>
