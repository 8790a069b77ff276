ALTER TABLE field_records DROP CONSTRAINT field_records_kind_check;
ALTER TABLE field_records ADD CONSTRAINT field_records_kind_check
    CHECK (kind IN ('found', 'round', 'dialled', 'measured'));
