-- What the records may hold, held in the database too: written values are checked, and what an
-- older version kept stays readable (checks on a table would refuse to rebuild it). Lists are
-- checked by their records. A test holds the figures against those of the records.

CREATE TRIGGER boat_insert BEFORE INSERT ON boat
BEGIN
  SELECT CASE
    WHEN NEW.length_m NOT BETWEEN 1.5 AND 15
    THEN RAISE(ABORT, 'boat.length_m is not allowed')
    WHEN NEW.beam_m NOT BETWEEN 0.3 AND 8
    THEN RAISE(ABORT, 'boat.beam_m is not allowed')
    WHEN NEW.mass_kg NOT BETWEEN 3 AND 30000
    THEN RAISE(ABORT, 'boat.mass_kg is not allowed')
    WHEN NEW.waterline_length_m NOT BETWEEN 0.8 AND 15
    THEN RAISE(ABORT, 'boat.waterline_length_m is not allowed')
    WHEN NEW.waterline_beam_m NOT BETWEEN 0.15 AND 8
    THEN RAISE(ABORT, 'boat.waterline_beam_m is not allowed')
    WHEN NEW.bodies NOT BETWEEN 1 AND 3
    THEN RAISE(ABORT, 'boat.bodies is not allowed')
    WHEN NEW.body_spacing_m NOT BETWEEN 0.1 AND 8
    THEN RAISE(ABORT, 'boat.body_spacing_m is not allowed')
    WHEN NEW.body_beam_m NOT BETWEEN 0.08 AND 8
    THEN RAISE(ABORT, 'boat.body_beam_m is not allowed')
    WHEN NEW.chine_beam_m NOT BETWEEN 0.2 AND 8
    THEN RAISE(ABORT, 'boat.chine_beam_m is not allowed')
    WHEN NEW.deadrise_deg NOT BETWEEN 0 AND 35
    THEN RAISE(ABORT, 'boat.deadrise_deg is not allowed')
    WHEN NEW.transom_height_m NOT BETWEEN 0.1 AND 1.5
    THEN RAISE(ABORT, 'boat.transom_height_m is not allowed')
    WHEN NEW.max_power_w NOT BETWEEN 0 AND 1000000.0
    THEN RAISE(ABORT, 'boat.max_power_w is not allowed')
    WHEN NEW.friction_factor NOT BETWEEN 0.2 AND 5
    THEN RAISE(ABORT, 'boat.friction_factor is not allowed')
    WHEN NEW.wave_factor NOT BETWEEN 0.2 AND 5
    THEN RAISE(ABORT, 'boat.wave_factor is not allowed')
    WHEN NEW.transom_thickness_m NOT BETWEEN 0.005 AND 0.3
    THEN RAISE(ABORT, 'boat.transom_thickness_m is not allowed')
    WHEN NEW.transom_width_m NOT BETWEEN 0.1 AND 4
    THEN RAISE(ABORT, 'boat.transom_width_m is not allowed')
    WHEN NEW.max_motor_kg NOT BETWEEN 1 AND 500
    THEN RAISE(ABORT, 'boat.max_motor_kg is not allowed')
    WHEN NEW.max_load_kg NOT BETWEEN 1 AND 30000
    THEN RAISE(ABORT, 'boat.max_load_kg is not allowed')
    WHEN NEW.max_people NOT BETWEEN 1 AND 60
    THEN RAISE(ABORT, 'boat.max_people is not allowed')
    WHEN NEW.approval_power_w NOT BETWEEN 1 AND 1000000.0
    THEN RAISE(ABORT, 'boat.approval_power_w is not allowed')
    WHEN NEW.approval_thrust_n NOT BETWEEN 1 AND 100000
    THEN RAISE(ABORT, 'boat.approval_thrust_n is not allowed')
    WHEN NEW.model_year NOT BETWEEN 1900 AND 2200
    THEN RAISE(ABORT, 'boat.model_year is not allowed')
    WHEN NEW.approval_from_year NOT BETWEEN 1900 AND 2200
    THEN RAISE(ABORT, 'boat.approval_from_year is not allowed')
    WHEN NEW.approval_to_year NOT BETWEEN 1900 AND 2200
    THEN RAISE(ABORT, 'boat.approval_to_year is not allowed')
    WHEN NEW.rake_deg NOT BETWEEN -20 AND 45
    THEN RAISE(ABORT, 'boat.rake_deg is not allowed')
    WHEN NEW.rudder_chord_m NOT BETWEEN 0.02 AND 1.5
    THEN RAISE(ABORT, 'boat.rudder_chord_m is not allowed')
    WHEN NEW.room_ahead_m NOT BETWEEN 0 AND 3
    THEN RAISE(ABORT, 'boat.room_ahead_m is not allowed')
    WHEN NEW.bottom NOT IN ('clean', 'slime', 'weed')
    THEN RAISE(ABORT, 'boat.bottom is not allowed')
    WHEN NEW.family NOT IN (
      'kayak', 'canoe', 'board', 'sailing_dinghy', 'rigid_dinghy', 'inflatable_soft',
      'inflatable_air', 'rib', 'flat_bottom', 'skiff', 'cabin', 'keelboat', 'multihull',
      'pontoon'
    )
    THEN RAISE(ABORT, 'boat.family is not allowed')
  END;
END;

CREATE TRIGGER boat_update BEFORE UPDATE ON boat
BEGIN
  SELECT CASE
    WHEN NEW.length_m IS NOT OLD.length_m
    AND NEW.length_m NOT BETWEEN 1.5 AND 15
    THEN RAISE(ABORT, 'boat.length_m is not allowed')
    WHEN NEW.beam_m IS NOT OLD.beam_m
    AND NEW.beam_m NOT BETWEEN 0.3 AND 8
    THEN RAISE(ABORT, 'boat.beam_m is not allowed')
    WHEN NEW.mass_kg IS NOT OLD.mass_kg
    AND NEW.mass_kg NOT BETWEEN 3 AND 30000
    THEN RAISE(ABORT, 'boat.mass_kg is not allowed')
    WHEN NEW.waterline_length_m IS NOT OLD.waterline_length_m
    AND NEW.waterline_length_m NOT BETWEEN 0.8 AND 15
    THEN RAISE(ABORT, 'boat.waterline_length_m is not allowed')
    WHEN NEW.waterline_beam_m IS NOT OLD.waterline_beam_m
    AND NEW.waterline_beam_m NOT BETWEEN 0.15 AND 8
    THEN RAISE(ABORT, 'boat.waterline_beam_m is not allowed')
    WHEN NEW.bodies IS NOT OLD.bodies
    AND NEW.bodies NOT BETWEEN 1 AND 3
    THEN RAISE(ABORT, 'boat.bodies is not allowed')
    WHEN NEW.body_spacing_m IS NOT OLD.body_spacing_m
    AND NEW.body_spacing_m NOT BETWEEN 0.1 AND 8
    THEN RAISE(ABORT, 'boat.body_spacing_m is not allowed')
    WHEN NEW.body_beam_m IS NOT OLD.body_beam_m
    AND NEW.body_beam_m NOT BETWEEN 0.08 AND 8
    THEN RAISE(ABORT, 'boat.body_beam_m is not allowed')
    WHEN NEW.chine_beam_m IS NOT OLD.chine_beam_m
    AND NEW.chine_beam_m NOT BETWEEN 0.2 AND 8
    THEN RAISE(ABORT, 'boat.chine_beam_m is not allowed')
    WHEN NEW.deadrise_deg IS NOT OLD.deadrise_deg
    AND NEW.deadrise_deg NOT BETWEEN 0 AND 35
    THEN RAISE(ABORT, 'boat.deadrise_deg is not allowed')
    WHEN NEW.transom_height_m IS NOT OLD.transom_height_m
    AND NEW.transom_height_m NOT BETWEEN 0.1 AND 1.5
    THEN RAISE(ABORT, 'boat.transom_height_m is not allowed')
    WHEN NEW.max_power_w IS NOT OLD.max_power_w
    AND NEW.max_power_w NOT BETWEEN 0 AND 1000000.0
    THEN RAISE(ABORT, 'boat.max_power_w is not allowed')
    WHEN NEW.friction_factor IS NOT OLD.friction_factor
    AND NEW.friction_factor NOT BETWEEN 0.2 AND 5
    THEN RAISE(ABORT, 'boat.friction_factor is not allowed')
    WHEN NEW.wave_factor IS NOT OLD.wave_factor
    AND NEW.wave_factor NOT BETWEEN 0.2 AND 5
    THEN RAISE(ABORT, 'boat.wave_factor is not allowed')
    WHEN NEW.transom_thickness_m IS NOT OLD.transom_thickness_m
    AND NEW.transom_thickness_m NOT BETWEEN 0.005 AND 0.3
    THEN RAISE(ABORT, 'boat.transom_thickness_m is not allowed')
    WHEN NEW.transom_width_m IS NOT OLD.transom_width_m
    AND NEW.transom_width_m NOT BETWEEN 0.1 AND 4
    THEN RAISE(ABORT, 'boat.transom_width_m is not allowed')
    WHEN NEW.max_motor_kg IS NOT OLD.max_motor_kg
    AND NEW.max_motor_kg NOT BETWEEN 1 AND 500
    THEN RAISE(ABORT, 'boat.max_motor_kg is not allowed')
    WHEN NEW.max_load_kg IS NOT OLD.max_load_kg
    AND NEW.max_load_kg NOT BETWEEN 1 AND 30000
    THEN RAISE(ABORT, 'boat.max_load_kg is not allowed')
    WHEN NEW.max_people IS NOT OLD.max_people
    AND NEW.max_people NOT BETWEEN 1 AND 60
    THEN RAISE(ABORT, 'boat.max_people is not allowed')
    WHEN NEW.approval_power_w IS NOT OLD.approval_power_w
    AND NEW.approval_power_w NOT BETWEEN 1 AND 1000000.0
    THEN RAISE(ABORT, 'boat.approval_power_w is not allowed')
    WHEN NEW.approval_thrust_n IS NOT OLD.approval_thrust_n
    AND NEW.approval_thrust_n NOT BETWEEN 1 AND 100000
    THEN RAISE(ABORT, 'boat.approval_thrust_n is not allowed')
    WHEN NEW.model_year IS NOT OLD.model_year
    AND NEW.model_year NOT BETWEEN 1900 AND 2200
    THEN RAISE(ABORT, 'boat.model_year is not allowed')
    WHEN NEW.approval_from_year IS NOT OLD.approval_from_year
    AND NEW.approval_from_year NOT BETWEEN 1900 AND 2200
    THEN RAISE(ABORT, 'boat.approval_from_year is not allowed')
    WHEN NEW.approval_to_year IS NOT OLD.approval_to_year
    AND NEW.approval_to_year NOT BETWEEN 1900 AND 2200
    THEN RAISE(ABORT, 'boat.approval_to_year is not allowed')
    WHEN NEW.rake_deg IS NOT OLD.rake_deg
    AND NEW.rake_deg NOT BETWEEN -20 AND 45
    THEN RAISE(ABORT, 'boat.rake_deg is not allowed')
    WHEN NEW.rudder_chord_m IS NOT OLD.rudder_chord_m
    AND NEW.rudder_chord_m NOT BETWEEN 0.02 AND 1.5
    THEN RAISE(ABORT, 'boat.rudder_chord_m is not allowed')
    WHEN NEW.room_ahead_m IS NOT OLD.room_ahead_m
    AND NEW.room_ahead_m NOT BETWEEN 0 AND 3
    THEN RAISE(ABORT, 'boat.room_ahead_m is not allowed')
    WHEN NEW.bottom IS NOT OLD.bottom
    AND NEW.bottom NOT IN ('clean', 'slime', 'weed')
    THEN RAISE(ABORT, 'boat.bottom is not allowed')
    WHEN NEW.family IS NOT OLD.family
    AND NEW.family NOT IN (
      'kayak', 'canoe', 'board', 'sailing_dinghy', 'rigid_dinghy', 'inflatable_soft',
      'inflatable_air', 'rib', 'flat_bottom', 'skiff', 'cabin', 'keelboat', 'multihull',
      'pontoon'
    )
    THEN RAISE(ABORT, 'boat.family is not allowed')
  END;
END;

CREATE TRIGGER load_insert BEFORE INSERT ON load
BEGIN
  SELECT CASE
    WHEN NEW.people NOT BETWEEN 0 AND 60
    THEN RAISE(ABORT, 'load.people is not allowed')
    WHEN NEW.people_kg NOT BETWEEN 0 AND 12000
    THEN RAISE(ABORT, 'load.people_kg is not allowed')
    WHEN NEW.gear_kg NOT BETWEEN 0 AND 20000
    THEN RAISE(ABORT, 'load.gear_kg is not allowed')
  END;
END;

CREATE TRIGGER load_update BEFORE UPDATE ON load
BEGIN
  SELECT CASE
    WHEN NEW.people IS NOT OLD.people
    AND NEW.people NOT BETWEEN 0 AND 60
    THEN RAISE(ABORT, 'load.people is not allowed')
    WHEN NEW.people_kg IS NOT OLD.people_kg
    AND NEW.people_kg NOT BETWEEN 0 AND 12000
    THEN RAISE(ABORT, 'load.people_kg is not allowed')
    WHEN NEW.gear_kg IS NOT OLD.gear_kg
    AND NEW.gear_kg NOT BETWEEN 0 AND 20000
    THEN RAISE(ABORT, 'load.gear_kg is not allowed')
  END;
END;

CREATE TRIGGER bay_insert BEFORE INSERT ON bay
BEGIN
  SELECT CASE
    WHEN NEW.length_m NOT BETWEEN 0.05 AND 5
    THEN RAISE(ABORT, 'bay.length_m is not allowed')
    WHEN NEW.width_m NOT BETWEEN 0.05 AND 5
    THEN RAISE(ABORT, 'bay.width_m is not allowed')
    WHEN NEW.height_m NOT BETWEEN 0.05 AND 3
    THEN RAISE(ABORT, 'bay.height_m is not allowed')
    WHEN NEW.max_kg NOT BETWEEN 1 AND 5000
    THEN RAISE(ABORT, 'bay.max_kg is not allowed')
    WHEN NEW.ahead_m NOT BETWEEN -1 AND 15
    THEN RAISE(ABORT, 'bay.ahead_m is not allowed')
    WHEN NEW.off_m NOT BETWEEN -4 AND 4
    THEN RAISE(ABORT, 'bay.off_m is not allowed')
    WHEN NEW.above_m NOT BETWEEN 0 AND 3
    THEN RAISE(ABORT, 'bay.above_m is not allowed')
    WHEN NEW.lid_length_m NOT BETWEEN 0.02 AND 5
    THEN RAISE(ABORT, 'bay.lid_length_m is not allowed')
    WHEN NEW.lid_width_m NOT BETWEEN 0.02 AND 5
    THEN RAISE(ABORT, 'bay.lid_width_m is not allowed')
  END;
END;

CREATE TRIGGER bay_update BEFORE UPDATE ON bay
BEGIN
  SELECT CASE
    WHEN NEW.length_m IS NOT OLD.length_m
    AND NEW.length_m NOT BETWEEN 0.05 AND 5
    THEN RAISE(ABORT, 'bay.length_m is not allowed')
    WHEN NEW.width_m IS NOT OLD.width_m
    AND NEW.width_m NOT BETWEEN 0.05 AND 5
    THEN RAISE(ABORT, 'bay.width_m is not allowed')
    WHEN NEW.height_m IS NOT OLD.height_m
    AND NEW.height_m NOT BETWEEN 0.05 AND 3
    THEN RAISE(ABORT, 'bay.height_m is not allowed')
    WHEN NEW.max_kg IS NOT OLD.max_kg
    AND NEW.max_kg NOT BETWEEN 1 AND 5000
    THEN RAISE(ABORT, 'bay.max_kg is not allowed')
    WHEN NEW.ahead_m IS NOT OLD.ahead_m
    AND NEW.ahead_m NOT BETWEEN -1 AND 15
    THEN RAISE(ABORT, 'bay.ahead_m is not allowed')
    WHEN NEW.off_m IS NOT OLD.off_m
    AND NEW.off_m NOT BETWEEN -4 AND 4
    THEN RAISE(ABORT, 'bay.off_m is not allowed')
    WHEN NEW.above_m IS NOT OLD.above_m
    AND NEW.above_m NOT BETWEEN 0 AND 3
    THEN RAISE(ABORT, 'bay.above_m is not allowed')
    WHEN NEW.lid_length_m IS NOT OLD.lid_length_m
    AND NEW.lid_length_m NOT BETWEEN 0.02 AND 5
    THEN RAISE(ABORT, 'bay.lid_length_m is not allowed')
    WHEN NEW.lid_width_m IS NOT OLD.lid_width_m
    AND NEW.lid_width_m NOT BETWEEN 0.02 AND 5
    THEN RAISE(ABORT, 'bay.lid_width_m is not allowed')
  END;
END;

CREATE TRIGGER leg_insert BEFORE INSERT ON leg
BEGIN
  SELECT CASE
    WHEN NEW.speed_m_s NOT BETWEEN 0.2 AND 20
    THEN RAISE(ABORT, 'leg.speed_m_s is not allowed')
    WHEN NEW.distance_m NOT BETWEEN 0 AND 1000000.0
    THEN RAISE(ABORT, 'leg.distance_m is not allowed')
    WHEN NEW.duration_s NOT BETWEEN 0 AND 2592000.0
    THEN RAISE(ABORT, 'leg.duration_s is not allowed')
    WHEN NEW.current_m_s NOT BETWEEN -6 AND 6
    THEN RAISE(ABORT, 'leg.current_m_s is not allowed')
    WHEN NEW.wind_m_s NOT BETWEEN -30 AND 30
    THEN RAISE(ABORT, 'leg.wind_m_s is not allowed')
    WHEN NEW.hold_s NOT BETWEEN 0 AND 432000
    THEN RAISE(ABORT, 'leg.hold_s is not allowed')
    WHEN NEW.latitude_deg NOT BETWEEN -90 AND 90
    THEN RAISE(ABORT, 'leg.latitude_deg is not allowed')
    WHEN NEW.longitude_deg NOT BETWEEN -180 AND 180
    THEN RAISE(ABORT, 'leg.longitude_deg is not allowed')
  END;
END;

CREATE TRIGGER leg_update BEFORE UPDATE ON leg
BEGIN
  SELECT CASE
    WHEN NEW.speed_m_s IS NOT OLD.speed_m_s
    AND NEW.speed_m_s NOT BETWEEN 0.2 AND 20
    THEN RAISE(ABORT, 'leg.speed_m_s is not allowed')
    WHEN NEW.distance_m IS NOT OLD.distance_m
    AND NEW.distance_m NOT BETWEEN 0 AND 1000000.0
    THEN RAISE(ABORT, 'leg.distance_m is not allowed')
    WHEN NEW.duration_s IS NOT OLD.duration_s
    AND NEW.duration_s NOT BETWEEN 0 AND 2592000.0
    THEN RAISE(ABORT, 'leg.duration_s is not allowed')
    WHEN NEW.current_m_s IS NOT OLD.current_m_s
    AND NEW.current_m_s NOT BETWEEN -6 AND 6
    THEN RAISE(ABORT, 'leg.current_m_s is not allowed')
    WHEN NEW.wind_m_s IS NOT OLD.wind_m_s
    AND NEW.wind_m_s NOT BETWEEN -30 AND 30
    THEN RAISE(ABORT, 'leg.wind_m_s is not allowed')
    WHEN NEW.hold_s IS NOT OLD.hold_s
    AND NEW.hold_s NOT BETWEEN 0 AND 432000
    THEN RAISE(ABORT, 'leg.hold_s is not allowed')
    WHEN NEW.latitude_deg IS NOT OLD.latitude_deg
    AND NEW.latitude_deg NOT BETWEEN -90 AND 90
    THEN RAISE(ABORT, 'leg.latitude_deg is not allowed')
    WHEN NEW.longitude_deg IS NOT OLD.longitude_deg
    AND NEW.longitude_deg NOT BETWEEN -180 AND 180
    THEN RAISE(ABORT, 'leg.longitude_deg is not allowed')
  END;
END;

CREATE TRIGGER enquiry_insert BEFORE INSERT ON enquiry
BEGIN
  SELECT CASE
    WHEN NEW.speed_m_s NOT BETWEEN 0.2 AND 20
    THEN RAISE(ABORT, 'enquiry.speed_m_s is not allowed')
    WHEN NEW.distance_m NOT BETWEEN 0 AND 1000000.0
    THEN RAISE(ABORT, 'enquiry.distance_m is not allowed')
    WHEN NEW.reserve NOT BETWEEN 0 AND 0.9
    THEN RAISE(ABORT, 'enquiry.reserve is not allowed')
    WHEN NEW.wind_m_s NOT BETWEEN -30 AND 30
    THEN RAISE(ABORT, 'enquiry.wind_m_s is not allowed')
    WHEN NEW.current_m_s NOT BETWEEN -6 AND 6
    THEN RAISE(ABORT, 'enquiry.current_m_s is not allowed')
    WHEN NEW.charge_h NOT BETWEEN 0.5 AND 240
    THEN RAISE(ABORT, 'enquiry.charge_h is not allowed')
    WHEN NEW.max_lift_kg NOT BETWEEN 1 AND 500
    THEN RAISE(ABORT, 'enquiry.max_lift_kg is not allowed')
    WHEN NEW.budget NOT BETWEEN 1 AND 10000000.0
    THEN RAISE(ABORT, 'enquiry.budget is not allowed')
    WHEN NEW.max_noise_db NOT BETWEEN 10 AND 140
    THEN RAISE(ABORT, 'enquiry.max_noise_db is not allowed')
    WHEN NEW.speed_limit_m_s NOT BETWEEN 0.5 AND 30
    THEN RAISE(ABORT, 'enquiry.speed_limit_m_s is not allowed')
    WHEN NEW.temperature_c NOT BETWEEN -20 AND 40
    THEN RAISE(ABORT, 'enquiry.temperature_c is not allowed')
    WHEN NEW.hotel_w NOT BETWEEN 0 AND 20000
    THEN RAISE(ABORT, 'enquiry.hotel_w is not allowed')
    WHEN NEW.solar_w NOT BETWEEN 0 AND 20000
    THEN RAISE(ABORT, 'enquiry.solar_w is not allowed')
    WHEN NEW.latitude_deg NOT BETWEEN -90 AND 90
    THEN RAISE(ABORT, 'enquiry.latitude_deg is not allowed')
    WHEN NEW.longitude_deg NOT BETWEEN -180 AND 180
    THEN RAISE(ABORT, 'enquiry.longitude_deg is not allowed')
    WHEN NEW.start_h NOT BETWEEN 0 AND 24
    THEN RAISE(ABORT, 'enquiry.start_h is not allowed')
    WHEN NEW.reserve_school NOT IN ('fifth', 'thirds', 'hour')
    THEN RAISE(ABORT, 'enquiry.reserve_school is not allowed')
    WHEN NEW.sky NOT IN ('clear', 'fair', 'mixed', 'overcast')
    THEN RAISE(ABORT, 'enquiry.sky is not allowed')
    WHEN NEW.date <> '' AND NEW.date IS NOT date(NEW.date, '+0 days')
    THEN RAISE(ABORT, 'enquiry.date is not allowed')
  END;
END;

CREATE TRIGGER enquiry_update BEFORE UPDATE ON enquiry
BEGIN
  SELECT CASE
    WHEN NEW.speed_m_s IS NOT OLD.speed_m_s
    AND NEW.speed_m_s NOT BETWEEN 0.2 AND 20
    THEN RAISE(ABORT, 'enquiry.speed_m_s is not allowed')
    WHEN NEW.distance_m IS NOT OLD.distance_m
    AND NEW.distance_m NOT BETWEEN 0 AND 1000000.0
    THEN RAISE(ABORT, 'enquiry.distance_m is not allowed')
    WHEN NEW.reserve IS NOT OLD.reserve
    AND NEW.reserve NOT BETWEEN 0 AND 0.9
    THEN RAISE(ABORT, 'enquiry.reserve is not allowed')
    WHEN NEW.wind_m_s IS NOT OLD.wind_m_s
    AND NEW.wind_m_s NOT BETWEEN -30 AND 30
    THEN RAISE(ABORT, 'enquiry.wind_m_s is not allowed')
    WHEN NEW.current_m_s IS NOT OLD.current_m_s
    AND NEW.current_m_s NOT BETWEEN -6 AND 6
    THEN RAISE(ABORT, 'enquiry.current_m_s is not allowed')
    WHEN NEW.charge_h IS NOT OLD.charge_h
    AND NEW.charge_h NOT BETWEEN 0.5 AND 240
    THEN RAISE(ABORT, 'enquiry.charge_h is not allowed')
    WHEN NEW.max_lift_kg IS NOT OLD.max_lift_kg
    AND NEW.max_lift_kg NOT BETWEEN 1 AND 500
    THEN RAISE(ABORT, 'enquiry.max_lift_kg is not allowed')
    WHEN NEW.budget IS NOT OLD.budget
    AND NEW.budget NOT BETWEEN 1 AND 10000000.0
    THEN RAISE(ABORT, 'enquiry.budget is not allowed')
    WHEN NEW.max_noise_db IS NOT OLD.max_noise_db
    AND NEW.max_noise_db NOT BETWEEN 10 AND 140
    THEN RAISE(ABORT, 'enquiry.max_noise_db is not allowed')
    WHEN NEW.speed_limit_m_s IS NOT OLD.speed_limit_m_s
    AND NEW.speed_limit_m_s NOT BETWEEN 0.5 AND 30
    THEN RAISE(ABORT, 'enquiry.speed_limit_m_s is not allowed')
    WHEN NEW.temperature_c IS NOT OLD.temperature_c
    AND NEW.temperature_c NOT BETWEEN -20 AND 40
    THEN RAISE(ABORT, 'enquiry.temperature_c is not allowed')
    WHEN NEW.hotel_w IS NOT OLD.hotel_w
    AND NEW.hotel_w NOT BETWEEN 0 AND 20000
    THEN RAISE(ABORT, 'enquiry.hotel_w is not allowed')
    WHEN NEW.solar_w IS NOT OLD.solar_w
    AND NEW.solar_w NOT BETWEEN 0 AND 20000
    THEN RAISE(ABORT, 'enquiry.solar_w is not allowed')
    WHEN NEW.latitude_deg IS NOT OLD.latitude_deg
    AND NEW.latitude_deg NOT BETWEEN -90 AND 90
    THEN RAISE(ABORT, 'enquiry.latitude_deg is not allowed')
    WHEN NEW.longitude_deg IS NOT OLD.longitude_deg
    AND NEW.longitude_deg NOT BETWEEN -180 AND 180
    THEN RAISE(ABORT, 'enquiry.longitude_deg is not allowed')
    WHEN NEW.start_h IS NOT OLD.start_h
    AND NEW.start_h NOT BETWEEN 0 AND 24
    THEN RAISE(ABORT, 'enquiry.start_h is not allowed')
    WHEN NEW.reserve_school IS NOT OLD.reserve_school
    AND NEW.reserve_school NOT IN (
      'fifth', 'thirds', 'hour'
    )
    THEN RAISE(ABORT, 'enquiry.reserve_school is not allowed')
    WHEN NEW.sky IS NOT OLD.sky
    AND NEW.sky NOT IN ('clear', 'fair', 'mixed', 'overcast')
    THEN RAISE(ABORT, 'enquiry.sky is not allowed')
    WHEN NEW.date IS NOT OLD.date
    AND NEW.date <> '' AND NEW.date IS NOT date(NEW.date, '+0 days')
    THEN RAISE(ABORT, 'enquiry.date is not allowed')
  END;
END;

CREATE TRIGGER motor_insert BEFORE INSERT ON motor
BEGIN
  SELECT CASE
    WHEN NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'motor.price is not allowed')
    WHEN NEW.noise_db NOT BETWEEN 10 AND 140
    THEN RAISE(ABORT, 'motor.noise_db is not allowed')
    WHEN NEW.claimed_hp NOT BETWEEN 0.05 AND 200
    THEN RAISE(ABORT, 'motor.claimed_hp is not allowed')
    WHEN NEW.claimed_speed_m_s NOT BETWEEN 0.2 AND 30
    THEN RAISE(ABORT, 'motor.claimed_speed_m_s is not allowed')
    WHEN NEW.claimed_runtime_s NOT BETWEEN 60 AND 1000000.0
    THEN RAISE(ABORT, 'motor.claimed_runtime_s is not allowed')
    WHEN NEW.input_power_w NOT BETWEEN 20 AND 100000
    THEN RAISE(ABORT, 'motor.input_power_w is not allowed')
    WHEN NEW.peak_power_w NOT BETWEEN 20 AND 200000
    THEN RAISE(ABORT, 'motor.peak_power_w is not allowed')
    WHEN NEW.voltage_v NOT BETWEEN 6 AND 400
    THEN RAISE(ABORT, 'motor.voltage_v is not allowed')
    WHEN NEW.voltage_min_v NOT BETWEEN 3 AND 400
    THEN RAISE(ABORT, 'motor.voltage_min_v is not allowed')
    WHEN NEW.voltage_max_v NOT BETWEEN 6 AND 500
    THEN RAISE(ABORT, 'motor.voltage_max_v is not allowed')
    WHEN NEW.mass_kg NOT BETWEEN 0.5 AND 500
    THEN RAISE(ABORT, 'motor.mass_kg is not allowed')
    WHEN NEW.shaft_length_m NOT BETWEEN 0.1 AND 2
    THEN RAISE(ABORT, 'motor.shaft_length_m is not allowed')
    WHEN NEW.propeller_diameter_m NOT BETWEEN 0.08 AND 1
    THEN RAISE(ABORT, 'motor.propeller_diameter_m is not allowed')
    WHEN NEW.propeller_pitch_m NOT BETWEEN 0.03 AND 1
    THEN RAISE(ABORT, 'motor.propeller_pitch_m is not allowed')
    WHEN NEW.propeller_rpm NOT BETWEEN 100 AND 8000
    THEN RAISE(ABORT, 'motor.propeller_rpm is not allowed')
    WHEN NEW.static_thrust_n NOT BETWEEN 1 AND 20000
    THEN RAISE(ABORT, 'motor.static_thrust_n is not allowed')
    WHEN NEW.controller_max_a NOT BETWEEN 1 AND 3000
    THEN RAISE(ABORT, 'motor.controller_max_a is not allowed')
    WHEN NEW.style NOT IN ('', 'outboard', 'pole', 'fin', 'pod')
    THEN RAISE(ABORT, 'motor.style is not allowed')
    WHEN NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'motor.stock is not allowed')
    WHEN NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'motor.valid_to is not allowed')
  END;
END;

CREATE TRIGGER motor_update BEFORE UPDATE ON motor
BEGIN
  SELECT CASE
    WHEN NEW.price IS NOT OLD.price
    AND NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'motor.price is not allowed')
    WHEN NEW.noise_db IS NOT OLD.noise_db
    AND NEW.noise_db NOT BETWEEN 10 AND 140
    THEN RAISE(ABORT, 'motor.noise_db is not allowed')
    WHEN NEW.claimed_hp IS NOT OLD.claimed_hp
    AND NEW.claimed_hp NOT BETWEEN 0.05 AND 200
    THEN RAISE(ABORT, 'motor.claimed_hp is not allowed')
    WHEN NEW.claimed_speed_m_s IS NOT OLD.claimed_speed_m_s
    AND NEW.claimed_speed_m_s NOT BETWEEN 0.2 AND 30
    THEN RAISE(ABORT, 'motor.claimed_speed_m_s is not allowed')
    WHEN NEW.claimed_runtime_s IS NOT OLD.claimed_runtime_s
    AND NEW.claimed_runtime_s NOT BETWEEN 60 AND 1000000.0
    THEN RAISE(ABORT, 'motor.claimed_runtime_s is not allowed')
    WHEN NEW.input_power_w IS NOT OLD.input_power_w
    AND NEW.input_power_w NOT BETWEEN 20 AND 100000
    THEN RAISE(ABORT, 'motor.input_power_w is not allowed')
    WHEN NEW.peak_power_w IS NOT OLD.peak_power_w
    AND NEW.peak_power_w NOT BETWEEN 20 AND 200000
    THEN RAISE(ABORT, 'motor.peak_power_w is not allowed')
    WHEN NEW.voltage_v IS NOT OLD.voltage_v
    AND NEW.voltage_v NOT BETWEEN 6 AND 400
    THEN RAISE(ABORT, 'motor.voltage_v is not allowed')
    WHEN NEW.voltage_min_v IS NOT OLD.voltage_min_v
    AND NEW.voltage_min_v NOT BETWEEN 3 AND 400
    THEN RAISE(ABORT, 'motor.voltage_min_v is not allowed')
    WHEN NEW.voltage_max_v IS NOT OLD.voltage_max_v
    AND NEW.voltage_max_v NOT BETWEEN 6 AND 500
    THEN RAISE(ABORT, 'motor.voltage_max_v is not allowed')
    WHEN NEW.mass_kg IS NOT OLD.mass_kg
    AND NEW.mass_kg NOT BETWEEN 0.5 AND 500
    THEN RAISE(ABORT, 'motor.mass_kg is not allowed')
    WHEN NEW.shaft_length_m IS NOT OLD.shaft_length_m
    AND NEW.shaft_length_m NOT BETWEEN 0.1 AND 2
    THEN RAISE(ABORT, 'motor.shaft_length_m is not allowed')
    WHEN NEW.propeller_diameter_m IS NOT OLD.propeller_diameter_m
    AND NEW.propeller_diameter_m NOT BETWEEN 0.08 AND 1
    THEN RAISE(ABORT, 'motor.propeller_diameter_m is not allowed')
    WHEN NEW.propeller_pitch_m IS NOT OLD.propeller_pitch_m
    AND NEW.propeller_pitch_m NOT BETWEEN 0.03 AND 1
    THEN RAISE(ABORT, 'motor.propeller_pitch_m is not allowed')
    WHEN NEW.propeller_rpm IS NOT OLD.propeller_rpm
    AND NEW.propeller_rpm NOT BETWEEN 100 AND 8000
    THEN RAISE(ABORT, 'motor.propeller_rpm is not allowed')
    WHEN NEW.static_thrust_n IS NOT OLD.static_thrust_n
    AND NEW.static_thrust_n NOT BETWEEN 1 AND 20000
    THEN RAISE(ABORT, 'motor.static_thrust_n is not allowed')
    WHEN NEW.controller_max_a IS NOT OLD.controller_max_a
    AND NEW.controller_max_a NOT BETWEEN 1 AND 3000
    THEN RAISE(ABORT, 'motor.controller_max_a is not allowed')
    WHEN NEW.style IS NOT OLD.style
    AND NEW.style NOT IN ('', 'outboard', 'pole', 'fin', 'pod')
    THEN RAISE(ABORT, 'motor.style is not allowed')
    WHEN NEW.stock IS NOT OLD.stock
    AND NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'motor.stock is not allowed')
    WHEN NEW.valid_to IS NOT OLD.valid_to
    AND NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'motor.valid_to is not allowed')
  END;
END;

CREATE TRIGGER battery_insert BEFORE INSERT ON battery
BEGIN
  SELECT CASE
    WHEN NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'battery.price is not allowed')
    WHEN NEW.claimed_energy_wh NOT BETWEEN 1 AND 1000000.0
    THEN RAISE(ABORT, 'battery.claimed_energy_wh is not allowed')
    WHEN NEW.nominal_voltage_v NOT BETWEEN 3 AND 400
    THEN RAISE(ABORT, 'battery.nominal_voltage_v is not allowed')
    WHEN NEW.capacity_ah NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.capacity_ah is not allowed')
    WHEN NEW.mass_kg NOT BETWEEN 0.05 AND 2000
    THEN RAISE(ABORT, 'battery.mass_kg is not allowed')
    WHEN NEW.max_continuous_a NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.max_continuous_a is not allowed')
    WHEN NEW.max_peak_a NOT BETWEEN 0.5 AND 20000
    THEN RAISE(ABORT, 'battery.max_peak_a is not allowed')
    WHEN NEW.full_voltage_v NOT BETWEEN 3 AND 500
    THEN RAISE(ABORT, 'battery.full_voltage_v is not allowed')
    WHEN NEW.empty_voltage_v NOT BETWEEN 1 AND 400
    THEN RAISE(ABORT, 'battery.empty_voltage_v is not allowed')
    WHEN NEW.length_m NOT BETWEEN 0.02 AND 3
    THEN RAISE(ABORT, 'battery.length_m is not allowed')
    WHEN NEW.width_m NOT BETWEEN 0.02 AND 3
    THEN RAISE(ABORT, 'battery.width_m is not allowed')
    WHEN NEW.height_m NOT BETWEEN 0.02 AND 3
    THEN RAISE(ABORT, 'battery.height_m is not allowed')
    WHEN NEW.bms_max_a NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.bms_max_a is not allowed')
    WHEN NEW.connector_max_a NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.connector_max_a is not allowed')
    WHEN NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'battery.stock is not allowed')
    WHEN NEW.chemistry NOT IN ('lfp', 'nmc', 'agm', 'gel', 'flooded')
    THEN RAISE(ABORT, 'battery.chemistry is not allowed')
    WHEN NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'battery.valid_to is not allowed')
  END;
END;

CREATE TRIGGER battery_update BEFORE UPDATE ON battery
BEGIN
  SELECT CASE
    WHEN NEW.price IS NOT OLD.price
    AND NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'battery.price is not allowed')
    WHEN NEW.claimed_energy_wh IS NOT OLD.claimed_energy_wh
    AND NEW.claimed_energy_wh NOT BETWEEN 1 AND 1000000.0
    THEN RAISE(ABORT, 'battery.claimed_energy_wh is not allowed')
    WHEN NEW.nominal_voltage_v IS NOT OLD.nominal_voltage_v
    AND NEW.nominal_voltage_v NOT BETWEEN 3 AND 400
    THEN RAISE(ABORT, 'battery.nominal_voltage_v is not allowed')
    WHEN NEW.capacity_ah IS NOT OLD.capacity_ah
    AND NEW.capacity_ah NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.capacity_ah is not allowed')
    WHEN NEW.mass_kg IS NOT OLD.mass_kg
    AND NEW.mass_kg NOT BETWEEN 0.05 AND 2000
    THEN RAISE(ABORT, 'battery.mass_kg is not allowed')
    WHEN NEW.max_continuous_a IS NOT OLD.max_continuous_a
    AND NEW.max_continuous_a NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.max_continuous_a is not allowed')
    WHEN NEW.max_peak_a IS NOT OLD.max_peak_a
    AND NEW.max_peak_a NOT BETWEEN 0.5 AND 20000
    THEN RAISE(ABORT, 'battery.max_peak_a is not allowed')
    WHEN NEW.full_voltage_v IS NOT OLD.full_voltage_v
    AND NEW.full_voltage_v NOT BETWEEN 3 AND 500
    THEN RAISE(ABORT, 'battery.full_voltage_v is not allowed')
    WHEN NEW.empty_voltage_v IS NOT OLD.empty_voltage_v
    AND NEW.empty_voltage_v NOT BETWEEN 1 AND 400
    THEN RAISE(ABORT, 'battery.empty_voltage_v is not allowed')
    WHEN NEW.length_m IS NOT OLD.length_m
    AND NEW.length_m NOT BETWEEN 0.02 AND 3
    THEN RAISE(ABORT, 'battery.length_m is not allowed')
    WHEN NEW.width_m IS NOT OLD.width_m
    AND NEW.width_m NOT BETWEEN 0.02 AND 3
    THEN RAISE(ABORT, 'battery.width_m is not allowed')
    WHEN NEW.height_m IS NOT OLD.height_m
    AND NEW.height_m NOT BETWEEN 0.02 AND 3
    THEN RAISE(ABORT, 'battery.height_m is not allowed')
    WHEN NEW.bms_max_a IS NOT OLD.bms_max_a
    AND NEW.bms_max_a NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.bms_max_a is not allowed')
    WHEN NEW.connector_max_a IS NOT OLD.connector_max_a
    AND NEW.connector_max_a NOT BETWEEN 0.5 AND 5000
    THEN RAISE(ABORT, 'battery.connector_max_a is not allowed')
    WHEN NEW.stock IS NOT OLD.stock
    AND NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'battery.stock is not allowed')
    WHEN NEW.chemistry IS NOT OLD.chemistry
    AND NEW.chemistry NOT IN (
      'lfp', 'nmc', 'agm', 'gel', 'flooded'
    )
    THEN RAISE(ABORT, 'battery.chemistry is not allowed')
    WHEN NEW.valid_to IS NOT OLD.valid_to
    AND NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'battery.valid_to is not allowed')
  END;
END;

CREATE TRIGGER mount_insert BEFORE INSERT ON mount
BEGIN
  SELECT CASE
    WHEN NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'mount.price is not allowed')
    WHEN NEW.max_motor_kg NOT BETWEEN 0.5 AND 1000
    THEN RAISE(ABORT, 'mount.max_motor_kg is not allowed')
    WHEN NEW.max_thrust_n NOT BETWEEN 1 AND 50000
    THEN RAISE(ABORT, 'mount.max_thrust_n is not allowed')
    WHEN NEW.mass_kg NOT BETWEEN 0 AND 500
    THEN RAISE(ABORT, 'mount.mass_kg is not allowed')
    WHEN NEW.transom_min_m NOT BETWEEN 0 AND 1
    THEN RAISE(ABORT, 'mount.transom_min_m is not allowed')
    WHEN NEW.transom_max_m NOT BETWEEN 0 AND 1
    THEN RAISE(ABORT, 'mount.transom_max_m is not allowed')
    WHEN NEW.drop_m NOT BETWEEN -1 AND 1
    THEN RAISE(ABORT, 'mount.drop_m is not allowed')
    WHEN NEW.offset_m NOT BETWEEN 0 AND 3
    THEN RAISE(ABORT, 'mount.offset_m is not allowed')
    WHEN NEW.hours NOT BETWEEN 0 AND 500
    THEN RAISE(ABORT, 'mount.hours is not allowed')
    WHEN NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'mount.stock is not allowed')
    WHEN NEW.kind NOT IN (
      'transom_clamp', 'quick_release', 'rowlock_pin', 'side_bar', 'stern_plate', 'fin_box',
      'pod', 'swing_arm', 'offset_bracket', 'well'
    )
    THEN RAISE(ABORT, 'mount.kind is not allowed')
    WHEN NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'mount.valid_to is not allowed')
  END;
END;

CREATE TRIGGER mount_update BEFORE UPDATE ON mount
BEGIN
  SELECT CASE
    WHEN NEW.price IS NOT OLD.price
    AND NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'mount.price is not allowed')
    WHEN NEW.max_motor_kg IS NOT OLD.max_motor_kg
    AND NEW.max_motor_kg NOT BETWEEN 0.5 AND 1000
    THEN RAISE(ABORT, 'mount.max_motor_kg is not allowed')
    WHEN NEW.max_thrust_n IS NOT OLD.max_thrust_n
    AND NEW.max_thrust_n NOT BETWEEN 1 AND 50000
    THEN RAISE(ABORT, 'mount.max_thrust_n is not allowed')
    WHEN NEW.mass_kg IS NOT OLD.mass_kg
    AND NEW.mass_kg NOT BETWEEN 0 AND 500
    THEN RAISE(ABORT, 'mount.mass_kg is not allowed')
    WHEN NEW.transom_min_m IS NOT OLD.transom_min_m
    AND NEW.transom_min_m NOT BETWEEN 0 AND 1
    THEN RAISE(ABORT, 'mount.transom_min_m is not allowed')
    WHEN NEW.transom_max_m IS NOT OLD.transom_max_m
    AND NEW.transom_max_m NOT BETWEEN 0 AND 1
    THEN RAISE(ABORT, 'mount.transom_max_m is not allowed')
    WHEN NEW.drop_m IS NOT OLD.drop_m
    AND NEW.drop_m NOT BETWEEN -1 AND 1
    THEN RAISE(ABORT, 'mount.drop_m is not allowed')
    WHEN NEW.offset_m IS NOT OLD.offset_m
    AND NEW.offset_m NOT BETWEEN 0 AND 3
    THEN RAISE(ABORT, 'mount.offset_m is not allowed')
    WHEN NEW.hours IS NOT OLD.hours
    AND NEW.hours NOT BETWEEN 0 AND 500
    THEN RAISE(ABORT, 'mount.hours is not allowed')
    WHEN NEW.stock IS NOT OLD.stock
    AND NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'mount.stock is not allowed')
    WHEN NEW.kind IS NOT OLD.kind
    AND NEW.kind NOT IN (
      'transom_clamp', 'quick_release', 'rowlock_pin', 'side_bar', 'stern_plate', 'fin_box',
      'pod', 'swing_arm', 'offset_bracket', 'well'
    )
    THEN RAISE(ABORT, 'mount.kind is not allowed')
    WHEN NEW.valid_to IS NOT OLD.valid_to
    AND NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'mount.valid_to is not allowed')
  END;
END;

CREATE TRIGGER charger_insert BEFORE INSERT ON charger
BEGIN
  SELECT CASE
    WHEN NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'charger.price is not allowed')
    WHEN NEW.voltage_v NOT BETWEEN 3 AND 400
    THEN RAISE(ABORT, 'charger.voltage_v is not allowed')
    WHEN NEW.current_a NOT BETWEEN 0.1 AND 1000
    THEN RAISE(ABORT, 'charger.current_a is not allowed')
    WHEN NEW.mass_kg NOT BETWEEN 0 AND 200
    THEN RAISE(ABORT, 'charger.mass_kg is not allowed')
    WHEN NEW.outputs NOT BETWEEN 1 AND 12
    THEN RAISE(ABORT, 'charger.outputs is not allowed')
    WHEN NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'charger.stock is not allowed')
    WHEN NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'charger.valid_to is not allowed')
  END;
END;

CREATE TRIGGER charger_update BEFORE UPDATE ON charger
BEGIN
  SELECT CASE
    WHEN NEW.price IS NOT OLD.price
    AND NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'charger.price is not allowed')
    WHEN NEW.voltage_v IS NOT OLD.voltage_v
    AND NEW.voltage_v NOT BETWEEN 3 AND 400
    THEN RAISE(ABORT, 'charger.voltage_v is not allowed')
    WHEN NEW.current_a IS NOT OLD.current_a
    AND NEW.current_a NOT BETWEEN 0.1 AND 1000
    THEN RAISE(ABORT, 'charger.current_a is not allowed')
    WHEN NEW.mass_kg IS NOT OLD.mass_kg
    AND NEW.mass_kg NOT BETWEEN 0 AND 200
    THEN RAISE(ABORT, 'charger.mass_kg is not allowed')
    WHEN NEW.outputs IS NOT OLD.outputs
    AND NEW.outputs NOT BETWEEN 1 AND 12
    THEN RAISE(ABORT, 'charger.outputs is not allowed')
    WHEN NEW.stock IS NOT OLD.stock
    AND NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'charger.stock is not allowed')
    WHEN NEW.valid_to IS NOT OLD.valid_to
    AND NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'charger.valid_to is not allowed')
  END;
END;

CREATE TRIGGER panel_insert BEFORE INSERT ON panel
BEGIN
  SELECT CASE
    WHEN NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'panel.price is not allowed')
    WHEN NEW.rated_w NOT BETWEEN 1 AND 2000
    THEN RAISE(ABORT, 'panel.rated_w is not allowed')
    WHEN NEW.length_m NOT BETWEEN 0.1 AND 5
    THEN RAISE(ABORT, 'panel.length_m is not allowed')
    WHEN NEW.width_m NOT BETWEEN 0.1 AND 5
    THEN RAISE(ABORT, 'panel.width_m is not allowed')
    WHEN NEW.mass_kg NOT BETWEEN 0.1 AND 100
    THEN RAISE(ABORT, 'panel.mass_kg is not allowed')
    WHEN NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'panel.stock is not allowed')
    WHEN NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'panel.valid_to is not allowed')
  END;
END;

CREATE TRIGGER panel_update BEFORE UPDATE ON panel
BEGIN
  SELECT CASE
    WHEN NEW.price IS NOT OLD.price
    AND NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'panel.price is not allowed')
    WHEN NEW.rated_w IS NOT OLD.rated_w
    AND NEW.rated_w NOT BETWEEN 1 AND 2000
    THEN RAISE(ABORT, 'panel.rated_w is not allowed')
    WHEN NEW.length_m IS NOT OLD.length_m
    AND NEW.length_m NOT BETWEEN 0.1 AND 5
    THEN RAISE(ABORT, 'panel.length_m is not allowed')
    WHEN NEW.width_m IS NOT OLD.width_m
    AND NEW.width_m NOT BETWEEN 0.1 AND 5
    THEN RAISE(ABORT, 'panel.width_m is not allowed')
    WHEN NEW.mass_kg IS NOT OLD.mass_kg
    AND NEW.mass_kg NOT BETWEEN 0.1 AND 100
    THEN RAISE(ABORT, 'panel.mass_kg is not allowed')
    WHEN NEW.stock IS NOT OLD.stock
    AND NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'panel.stock is not allowed')
    WHEN NEW.valid_to IS NOT OLD.valid_to
    AND NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'panel.valid_to is not allowed')
  END;
END;

CREATE TRIGGER propeller_insert BEFORE INSERT ON propeller
BEGIN
  SELECT CASE
    WHEN NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'propeller.price is not allowed')
    WHEN NEW.diameter_m NOT BETWEEN 0.08 AND 1
    THEN RAISE(ABORT, 'propeller.diameter_m is not allowed')
    WHEN NEW.pitch_m NOT BETWEEN 0.03 AND 1
    THEN RAISE(ABORT, 'propeller.pitch_m is not allowed')
    WHEN NEW.blades NOT BETWEEN 2 AND 7
    THEN RAISE(ABORT, 'propeller.blades is not allowed')
    WHEN NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'propeller.stock is not allowed')
    WHEN NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'propeller.valid_to is not allowed')
  END;
END;

CREATE TRIGGER propeller_update BEFORE UPDATE ON propeller
BEGIN
  SELECT CASE
    WHEN NEW.price IS NOT OLD.price
    AND NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'propeller.price is not allowed')
    WHEN NEW.diameter_m IS NOT OLD.diameter_m
    AND NEW.diameter_m NOT BETWEEN 0.08 AND 1
    THEN RAISE(ABORT, 'propeller.diameter_m is not allowed')
    WHEN NEW.pitch_m IS NOT OLD.pitch_m
    AND NEW.pitch_m NOT BETWEEN 0.03 AND 1
    THEN RAISE(ABORT, 'propeller.pitch_m is not allowed')
    WHEN NEW.blades IS NOT OLD.blades
    AND NEW.blades NOT BETWEEN 2 AND 7
    THEN RAISE(ABORT, 'propeller.blades is not allowed')
    WHEN NEW.stock IS NOT OLD.stock
    AND NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'propeller.stock is not allowed')
    WHEN NEW.valid_to IS NOT OLD.valid_to
    AND NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'propeller.valid_to is not allowed')
  END;
END;

CREATE TRIGGER accessory_insert BEFORE INSERT ON accessory
BEGIN
  SELECT CASE
    WHEN NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'accessory.price is not allowed')
    WHEN NEW.mass_kg NOT BETWEEN 0 AND 500
    THEN RAISE(ABORT, 'accessory.mass_kg is not allowed')
    WHEN NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'accessory.stock is not allowed')
    WHEN NEW.kind NOT IN (
      'gauge', 'throttle', 'cover', 'cable', 'fuse', 'switch', 'steering', 'safety', 'other'
    )
    THEN RAISE(ABORT, 'accessory.kind is not allowed')
    WHEN NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'accessory.valid_to is not allowed')
  END;
END;

CREATE TRIGGER accessory_update BEFORE UPDATE ON accessory
BEGIN
  SELECT CASE
    WHEN NEW.price IS NOT OLD.price
    AND NEW.price NOT BETWEEN 0 AND 10000000.0
    THEN RAISE(ABORT, 'accessory.price is not allowed')
    WHEN NEW.mass_kg IS NOT OLD.mass_kg
    AND NEW.mass_kg NOT BETWEEN 0 AND 500
    THEN RAISE(ABORT, 'accessory.mass_kg is not allowed')
    WHEN NEW.stock IS NOT OLD.stock
    AND NEW.stock NOT IN ('', 'shelf', 'order', 'none')
    THEN RAISE(ABORT, 'accessory.stock is not allowed')
    WHEN NEW.kind IS NOT OLD.kind
    AND NEW.kind NOT IN (
      'gauge', 'throttle', 'cover', 'cable', 'fuse', 'switch', 'steering', 'safety', 'other'
    )
    THEN RAISE(ABORT, 'accessory.kind is not allowed')
    WHEN NEW.valid_to IS NOT OLD.valid_to
    AND NEW.valid_to <> '' AND NEW.valid_to IS NOT date(NEW.valid_to, '+0 days')
    THEN RAISE(ABORT, 'accessory.valid_to is not allowed')
  END;
END;

CREATE TRIGGER setup_insert BEFORE INSERT ON setup
BEGIN
  SELECT CASE
    WHEN NEW.shaft_m NOT BETWEEN 0.1 AND 2.0
    THEN RAISE(ABORT, 'setup.shaft_m is not allowed')
  END;
END;

CREATE TRIGGER setup_update BEFORE UPDATE ON setup
BEGIN
  SELECT CASE
    WHEN NEW.shaft_m IS NOT OLD.shaft_m
    AND NEW.shaft_m NOT BETWEEN 0.1 AND 2.0
    THEN RAISE(ABORT, 'setup.shaft_m is not allowed')
  END;
END;
