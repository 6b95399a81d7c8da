<x-page title="Many FTP users" place="Accounts">
    @include('parts.bulk')
</x-page>
