package app.yubble.server.delivery;

import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;

/** Settings of deliveries under a name. */
@RestController
class DeliveryPresetController {
    private static final int MOST = 50;

    private final DeliveryPresetRepository presets;
    private final JsonMapper json;

    DeliveryPresetController(DeliveryPresetRepository presets, JsonMapper json) {
        this.presets = presets;
        this.json = json;
    }

    record NewPreset(
            @NotBlank @Size(max = 60) String name,
            @NotBlank @Size(max = 120) String pattern,
            @Valid @NotNull DeliverySettings settings) {}

    record PresetView(UUID id, String name, String pattern, DeliverySettings settings) {}

    private PresetView view(DeliveryPreset preset) {
        return new PresetView(
                preset.id(),
                preset.name(),
                preset.pattern(),
                json.readValue(preset.settings(), DeliverySettings.class));
    }

    @GetMapping("/api/delivery-presets")
    List<PresetView> all(@AuthenticationPrincipal SignedIn who) {
        return presets.findByAccountIdOrderByName(who.id()).stream()
                .map(this::view)
                .toList();
    }

    /** Keeps settings under a name; what was kept under it before is gone. */
    @PutMapping("/api/delivery-presets")
    @Transactional
    public PresetView keep(@AuthenticationPrincipal SignedIn who, @RequestBody @Valid NewPreset wanted) {
        String name = wanted.name().strip();
        DeliveryPreset preset = presets.findByAccountIdAndName(who.id(), name).orElse(null);
        if (preset == null) {
            if (presets.findByAccountIdOrderByName(who.id()).size() >= MOST) {
                throw new RefusedException("There are at most " + MOST + " presets.");
            }
            preset = new DeliveryPreset(who.id(), name);
        }
        preset.set(wanted.pattern().strip(), json.writeValueAsString(wanted.settings()));
        return view(presets.save(preset));
    }

    @DeleteMapping("/api/delivery-presets/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    @Transactional
    public void remove(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id) {
        presets.delete(presets.findByIdAndAccountId(id, who.id()).orElseThrow(() -> new NotFoundException("preset")));
    }
}
