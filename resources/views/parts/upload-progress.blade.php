<div class="progress-box" hidden>
    <p><code class="progress-name breakable"></code></p>
    <progress aria-label="Uploaded" max="1" value="0"></progress>
    <p class="progress-words soft" role="status"></p>
    <button class="act is-quiet stop" type="button">Stop and discard</button>
</div>
